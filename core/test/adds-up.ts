import type { Working } from '../src/index.ts';
import { rootBetween } from '../src/math/root.ts';

// Reads a working as its reader would: the formula, with the values of its terms put in.

const involute = (x: number): number => Math.tan(x) - x;

const CALLS: Readonly<Record<string, (...x: number[]) => number>> = {
  tan: Math.tan,
  sin: Math.sin,
  cos: Math.cos,
  atan: Math.atan,
  asin: Math.asin,
  acos: Math.acos,
  min: Math.min,
  max: Math.max,
  ln: Math.log,
  inv: involute,
  'inv⁻¹': (y) => rootBetween((x) => involute(x) - y, 0, 1.5),
};
const FRACTIONS: Readonly<Record<string, number>> = {
  '½': 0.5,
  '¼': 0.25,
  '¾': 0.75,
  '⅓': 1 / 3,
  '⅔': 2 / 3,
  π: Math.PI,
};
const SUPER = '⁰¹²³⁴⁵⁶⁷⁸⁹';

type Token =
  { readonly is: 'value' | 'power'; readonly value: number } | { readonly is: 'call' | 'sign'; readonly name: string };

/** The formula in pieces; the terms' symbols count before anything else, the longest first. */
function tokens(formula: string, terms: Working['terms']): Token[] | undefined {
  const symbols = [...terms].sort((a, b) => b.symbol.length - a.symbol.length);
  const out: Token[] = [];
  for (let rest = formula.trimStart(); rest; rest = rest.trimStart()) {
    const call = /^(inv⁻¹|atan|asin|acos|tan|sin|cos|min|max|ln|inv)(?![a-z_])/.exec(rest)?.[0];
    const term = call ? undefined : symbols.find((t) => rest.startsWith(t.symbol));
    const number = /^\d+(\.\d+)?/.exec(rest)?.[0];
    const power = /^⁻?[⁰¹²³⁴-⁹]+/.exec(rest)?.[0];
    const first = rest[0]!;
    const one = (token: Token, length: number) => {
      out.push(token);
      rest = rest.slice(length);
    };
    if (call) one({ is: 'call', name: call }, call.length);
    else if (term) one({ is: 'value', value: term.value }, term.symbol.length);
    else if (number) one({ is: 'value', value: Number(number) }, number.length);
    else if (power) {
      const digits = [...power.replace('⁻', '')].map((c) => SUPER.indexOf(c)).join('');
      one({ is: 'power', value: (power.startsWith('⁻') ? -1 : 1) * Number(digits) }, power.length);
    } else if (first in FRACTIONS) one({ is: 'value', value: FRACTIONS[first]! }, 1);
    else if ('·×'.includes(first)) one({ is: 'sign', name: '·' }, 1);
    else if ('−-'.includes(first)) one({ is: 'sign', name: '−' }, 1);
    else if ('+/^(),|√'.includes(first)) one({ is: 'sign', name: first }, 1);
    else return undefined;
  }
  return out;
}

/** Reads a sum from its pieces; what does not read throws. */
class Reader {
  private at = 0;
  private bars = 0;
  constructor(private readonly list: readonly Token[]) {}

  whole(): number {
    const value = this.sum();
    if (this.at < this.list.length) throw new SyntaxError('Something is left over.');
    return value;
  }

  private is(name: string): boolean {
    const t = this.list[this.at];
    return t?.is === 'sign' && t.name === name;
  }

  private skip(name: string): boolean {
    if (!this.is(name)) return false;
    this.at++;
    return true;
  }

  private need(name: string): void {
    if (!this.skip(name)) throw new SyntaxError(`${name} is missing.`);
  }

  private sum(): number {
    let value = this.skip('−') ? -this.product() : this.product();
    for (;;) {
      if (this.skip('+')) value += this.product();
      else if (this.skip('−')) value -= this.product();
      else return value;
    }
  }

  private product(): number {
    let value = this.power();
    for (;;) {
      if (this.skip('·')) value *= this.power();
      else if (this.skip('/')) value /= this.power();
      else if (this.begins()) value *= this.power();
      else return value;
    }
  }

  /** Whether a factor follows without a sign, as in 2π. */
  private begins(): boolean {
    const t = this.list[this.at];
    return (
      t !== undefined &&
      (t.is === 'value' || t.is === 'call' || this.is('(') || this.is('√') || (this.is('|') && !this.bars))
    );
  }

  private power(): number {
    let base = this.one();
    for (;;) {
      const t = this.list[this.at];
      if (t?.is === 'power') {
        this.at++;
        base **= t.value;
      } else if (this.skip('^')) base **= this.skip('−') ? -this.one() : this.one();
      else return base;
    }
  }

  private one(): number {
    const t = this.list[this.at++];
    if (t?.is === 'value') return t.value;
    if (t?.is === 'call') return this.call(t.name);
    if (t?.is === 'sign' && t.name === '(') {
      const value = this.sum();
      this.need(')');
      return value;
    }
    if (t?.is === 'sign' && t.name === '√') return Math.sqrt(this.one());
    if (t?.is === 'sign' && t.name === '|') {
      this.bars++;
      const value = Math.abs(this.sum());
      this.bars--;
      this.need('|');
      return value;
    }
    throw new SyntaxError('A value is missing.');
  }

  private call(name: string): number {
    const next = this.list[this.at];
    const power = next?.is === 'power' ? next.value : 1;
    if (power !== 1) this.at++;
    const given: number[] = [];
    if (this.skip('(')) {
      do given.push(this.sum());
      while (this.skip(','));
      this.need(')');
    } else given.push(this.power());
    return CALLS[name]!(...given) ** power;
  }
}

/**
 * What a working comes to with its terms put in; undefined where its formula is words, or not all of it stands among its
 * terms. What follows a semicolon is a remark; of several sides of an equation the last counts.
 */
export function addedUp(w: Working): number | undefined {
  const formula = w.formula.split(';')[0]!.split(' = ').at(-1)!;
  const list = tokens(formula, w.terms);
  if (!list) return undefined;
  try {
    return new Reader(list).whole();
  } catch (e) {
    if (e instanceof SyntaxError) return undefined;
    throw e;
  }
}
