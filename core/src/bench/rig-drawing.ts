/** Strokes a sketch is drawn with: outlines, dimension lines, what moves or is read, thick bars. */
export type Pen = 'ink' | 'thin' | 'hot' | 'bar' | 'edge' | 'none';
export type Paint = 'part' | 'other' | 'panel' | 'ink' | 'found' | 'none';

/** A piece of a sketch, in the sketch's own units (218 wide), y downwards. */
export type SketchItem =
  | { readonly as: 'path'; readonly d: string; readonly pen: Pen; readonly fill?: Paint; readonly dashed?: boolean }
  | {
      readonly as: 'circle';
      readonly x: number;
      readonly y: number;
      readonly r: number;
      readonly pen: Pen;
      readonly fill?: Paint;
    }
  | {
      readonly as: 'text';
      readonly x: number;
      readonly y: number;
      readonly text: string;
      readonly colour: 'ink' | 'found' | 'muted';
      readonly anchor: 'start' | 'middle' | 'end';
    };

/** A rig drawn by its kind of test. */
export interface RigDrawing {
  /** Height where the width is 218. */
  readonly height: number;
  readonly items: readonly SketchItem[];
}

/** What a sketch is told of its rig: a field's value as text with its unit, and as a number in SI. */
export interface SketchRig {
  said(field: string, digits?: number): string;
  value(field: string): number;
}

export const path = (d: string, pen: Pen, fill?: Paint, dashed?: boolean): SketchItem => ({
  as: 'path',
  d,
  pen,
  ...(fill && { fill }),
  ...(dashed && { dashed }),
});

export const circle = (x: number, y: number, r: number, pen: Pen, fill?: Paint): SketchItem => ({
  as: 'circle',
  x,
  y,
  r,
  pen,
  ...(fill && { fill }),
});

export const word = (
  x: number,
  y: number,
  text: string,
  colour: 'ink' | 'found' | 'muted' = 'ink',
  anchor: 'start' | 'middle' | 'end' = 'middle',
): SketchItem => ({ as: 'text', x, y, text, colour, anchor });

/** A dimension line with its arrows between two heights. */
export const dimension = (x1: number, x2: number, y: number, text: string): SketchItem[] => [
  path(`M${x1} ${y - 10}v14M${x2} ${y - 10}v14M${x1} ${y}H${x2}`, 'thin'),
  path(`M${x1} ${y}l7 -2.5v5ZM${x2} ${y}l-7 -2.5v5Z`, 'none', 'ink'),
  word((x1 + x2) / 2, y - 5, text),
];

/** The joint on the bench: a housing on its foot with the output's end. */
export const HOUSE: readonly SketchItem[] = [
  path('M14 110h60', 'ink'),
  path('M20 110V50h36V110', 'ink', 'part'),
  circle(38, 72, 10, 'ink', 'panel'),
  circle(38, 72, 1.8, 'none', 'ink'),
];

/** A motor at the joint's back. */
export const MOTOR: SketchItem = path('M6 60h12v26h-12Z', 'ink', 'other');

/** Motor and ammeter, the driver's lead between them. */
export const METERED: readonly SketchItem[] = [
  ...HOUSE,
  MOTOR,
  path('M12 60V30H96', 'thin'),
  circle(108, 30, 12, 'ink', 'panel'),
  word(108, 34, 'A'),
  path('M120 30h50v20', 'thin'),
  word(172, 62, 'driver'),
];

/** A lever on the output. */
export const arm = (long = 130): SketchItem => path(`M38 72h${long}`, 'bar');

/** A mass on its hook, hung at x below y. */
export const hung = (x: number, y: number, wide = 22): SketchItem[] => [
  path(`M${x} ${y}v14`, 'ink'),
  path(`M${x - wide / 2} ${y + 14}h${wide}l-4 18h-${wide - 8}Z`, 'ink', 'part'),
];

export const sketch = (items: readonly SketchItem[], height = 144): RigDrawing => ({ height, items });
