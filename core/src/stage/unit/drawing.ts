import { circle, ORIGIN, OutlinePen, segment } from '../../shape/outline.ts';
import type { DrawItem, DrawOptions, Layer } from '../contract.ts';
import type { UnitParams } from './params.ts';

/**
 * The housing seen along the output axis: round in line, a rounded slab round both axes where the input lies beside.
 */
export function housing(p: UnitParams) {
  const r = p.outside / 2;
  if (p.form !== 'beside' || p.centre === 0) return circle(0, 0, r);
  // Two half circles joined by straight sides; a half circle has a bulge of one.
  return new OutlinePen().to(0, r).to(0, r, 1).to(0, -r).to(p.centre, -r, 1).to(p.centre, r).close();
}

/** Output and input with their marks, to scale from the data sheet; what is inside is the maker's. */
export function drawUnit(p: UnitParams, crank: number, options: DrawOptions): readonly Layer[] {
  const r = p.outside / 2;
  const x = p.form === 'beside' ? p.centre : 0;
  const flange = Math.max(p.bore / 2 + r * 0.12, r * 0.52);
  const shaft = r * 0.2;
  const at = (turn: number, cx = 0) => ({ ...ORIGIN, x: cx, turn });
  const body: DrawItem[] = [
    { kind: 'curve', key: 'housing', outline: housing(p), at: ORIGIN, ink: 'outline', tint: 'part' },
    { kind: 'curve', key: 'flange', outline: circle(0, 0, flange), at: at(0), ink: 'outline', tint: 'partB' },
    ...(p.bore > 0
      ? [
          {
            kind: 'curve',
            key: 'bore',
            outline: circle(0, 0, p.bore / 2),
            at: at(0),
            ink: 'outline',
            tint: 'hole',
          } as const,
        ]
      : []),
    ...(x > 0
      ? [
          {
            kind: 'curve',
            key: 'input',
            outline: circle(0, 0, shaft),
            at: at(0, x),
            ink: 'hidden',
            tint: 'none',
          } as const,
        ]
      : []),
  ];
  if (options.glyph) return [{ id: 'parts', name: 'Unit', items: body }];
  const holes: DrawItem[] = Array.from({ length: 6 }, (_, i) => {
    const a = (i * Math.PI) / 3 + crank / p.ratio;
    return {
      kind: 'curve',
      key: `screw${i}`,
      outline: circle(0, 0, r * 0.045),
      at: { x: flange * 0.82 * Math.cos(a), y: flange * 0.82 * Math.sin(a), turn: 0 },
      ink: 'outline',
      tint: 'hole',
    };
  });
  const marks: DrawItem[] = [
    {
      kind: 'curve',
      key: 'out',
      outline: segment(flange * 0.9, 0, flange * 1.12, 0),
      at: at(crank / p.ratio),
      ink: 'contact',
      tint: 'none',
    },
    {
      kind: 'curve',
      key: 'in',
      outline: segment(0, 0, Math.min(shaft, r * 0.9), 0),
      at: at(crank, x),
      ink: 'force',
      tint: 'none',
    },
  ];
  return [
    { id: 'parts', name: 'Unit', items: [...body, ...holes] },
    {
      id: 'centre',
      name: 'Centre lines',
      items: [
        {
          kind: 'curve',
          key: 'h',
          outline: segment(-r * 1.15, 0, x + r * 1.15, 0),
          at: ORIGIN,
          ink: 'centre',
          tint: 'none',
        },
        {
          kind: 'curve',
          key: 'v',
          outline: segment(0, -r * 1.15, 0, r * 1.15),
          at: ORIGIN,
          ink: 'centre',
          tint: 'none',
        },
      ],
    },
    { id: 'marks', name: 'Turning marks', items: marks },
    {
      id: 'dimensions',
      name: 'Dimensions',
      items: [
        {
          kind: 'dimension',
          key: 'outside',
          from: [-r, 0],
          to: [r, 0],
          offset: -r * 1.28,
          value: p.outside,
          quantity: 'length',
          prefix: '⌀ ',
        },
        ...(x > 0
          ? [
              {
                kind: 'dimension',
                key: 'centre',
                from: [0, 0],
                to: [x, 0],
                offset: r * 1.25,
                value: x,
                quantity: 'length',
              } as const,
            ]
          : []),
      ],
    },
  ];
}
