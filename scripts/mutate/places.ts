// Places of a source where one change makes another formula.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';

/** Files whose arithmetic is looked at by eye or held by their own tests of shape: pictures, forms, writers of files. */
export const LEFT_OUT =
  /(drawing|fields|tables|parts|outlines|views|marks|words|candidates|params|counts)\.ts$|\/(shape|solid|units|document|schema)\//;

/** One change of one file. */
export interface Mutant {
  readonly file: string;
  readonly line: number;
  /** What is replaced, from and to in the text, and by what. */
  readonly start: number;
  readonly end: number;
  readonly to: string;
  /** The expression that counts as run when the place is. */
  readonly from: number;
  readonly till: number;
  readonly says: string;
}

const SWAPS = new Map<ts.SyntaxKind, string>([
  [ts.SyntaxKind.PlusToken, '-'],
  [ts.SyntaxKind.MinusToken, '+'],
  [ts.SyntaxKind.AsteriskToken, '/'],
  [ts.SyntaxKind.SlashToken, '*'],
  [ts.SyntaxKind.AsteriskAsteriskToken, '*'],
  [ts.SyntaxKind.PlusEqualsToken, '-='],
]);

/** A number that something is compared with decides; it is not reckoned with. */
const COMPARES = new Set([
  ts.SyntaxKind.LessThanToken,
  ts.SyntaxKind.LessThanEqualsToken,
  ts.SyntaxKind.GreaterThanToken,
  ts.SyntaxKind.GreaterThanEqualsToken,
  ts.SyntaxKind.EqualsEqualsEqualsToken,
  ts.SyntaxKind.ExclamationEqualsEqualsToken,
]);

const CALLS: Readonly<Record<string, string>> = {
  sin: 'cos',
  cos: 'sin',
  tan: 'sin',
  min: 'max',
  max: 'min',
  sqrt: 'abs',
  cbrt: 'abs',
  abs: 'sign',
  floor: 'ceil',
  ceil: 'floor',
};

/** Every place of a file where one change makes another formula. Text, types and indices are no formulas. */
export function mutantsOf(root: string, file: string): Mutant[] {
  const text = readFileSync(join(root, file), 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const out: Mutant[] = [];
  const put = (node: ts.Node, to: string, run: ts.Node = node) => {
    const [start, end] = [node.getStart(), node.getEnd()];
    const line = source.getLineAndCharacterOfPosition(start).line + 1;
    const [from, till] = [run.getStart(), run.getEnd()];
    out.push({ file, line, start, end, to, from, till, says: `${text.slice(start, end)} → ${to}` });
  };
  const words = (n: ts.Node): boolean =>
    ts.isTemplateExpression(n) || ts.isTypeNode(n) || ts.isElementAccessExpression(n.parent ?? n) || wording(n);
  const visit = (n: ts.Node): void => {
    if (drawn(n)) return;
    if (n.parent && words(n) && !(ts.isElementAccessExpression(n.parent) && n.parent.expression === n)) return;
    if (ts.isBinaryExpression(n)) {
      const swap = SWAPS.get(n.operatorToken.kind);
      const strings = [n.left, n.right].some((x) => ts.isStringLiteralLike(x) || ts.isTemplateExpression(x));
      if (swap && !strings) put(n.operatorToken, swap, n);
    }
    if (
      ts.isNumericLiteral(n) &&
      n.parent &&
      ts.isBinaryExpression(n.parent) &&
      !COMPARES.has(n.parent.operatorToken.kind)
    )
      put(n, `(${n.getText()} * 2 + 0.01)`);
    if (ts.isPrefixUnaryExpression(n) && n.operator === ts.SyntaxKind.MinusToken && !ts.isNumericLiteral(n.operand))
      put(n, n.operand.getText());
    if (ts.isPropertyAccessExpression(n) && n.expression.getText() === 'Math' && CALLS[n.name.text])
      put(n.name, CALLS[n.name.text]!, n);
    ts.forEachChild(n, visit);
  };
  visit(source);
  return out;
}

/** What a rig's sketch is drawn by is looked at by eye. */
const drawn = (n: ts.Node): boolean =>
  (ts.isPropertyAssignment(n) || ts.isMethodDeclaration(n) || ts.isFunctionDeclaration(n)) &&
  /^(sketch|draw)/.test(n.name?.getText() ?? '');

/** A call that only says something. */
const wording = (n: ts.Node): boolean =>
  ts.isCallExpression(n) &&
  /^(refuse|stop|check|term|exact|formatQuantity|stated|steppedUp|rigQuantity)$|\.figure$/.test(n.expression.getText());
