import { bearingStocked, beltKey } from '../../shop/drawer.ts';
import { ok, type Result } from '../../result.ts';
import { circle } from '../../shape/outline.ts';
import { prism } from '../../shape/solid.ts';
import { ROLLER_PLATE } from './geometry.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, Part, Ports, Turning } from '../contract.ts';
import { springParts } from '../split-wheel.ts';
import type { StrainWaveModel } from './model.ts';
import { alongWave, ringOutline, splineOutline } from './outlines.ts';
import { wavePose } from './drawing.ts';
import { hasRollers, ringTeeth, type StrainWaveParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 6);
const degrees = (x: number): string => stated(x, 'angle', 5);
/** Heads of screws need this much round their holes, m. */
/** What a plate that carries rollers stays clear of the spline by, m. */
const PLATE_GAP = 8e-4;
const SCREW = 3.2e-3;

/** Spline (cup or band), ring or rings, generator with its bearing or rollers. */
export function strainWaveParts(p: StrainWaveParams, shelf: Shelf, m: StrainWaveModel): Result<readonly Part[]> {
  const g = m.geometry;
  const [ms, mr, mg] = m.materials.map((x) => x.material) as [
    (typeof m.materials)[0]['material'],
    (typeof m.materials)[0]['material'],
    (typeof m.materials)[0]['material'],
  ];
  const how = (x: { made: string }) => (x.made === 'printed' ? 'printed' : 'bought') as Part['made'];
  const stand = (z: number, layer: number, turn = 0, x = 0, y = 0) => ({
    at: [x, y, z] as const,
    turn,
    apart: [0, 0, layer * 1.6 * p.width] as const,
  });
  const inside = g.radius - g.wall / 2;
  const outline = splineOutline(g);
  const bore = circle(0, 0, inside);
  const floor = Math.max(1.5e-3, 1.5 * g.wall);
  const room = inside - 2e-3;
  const screws =
    p.body === 'cup' && room > 8e-3
      ? Array.from({ length: 6 }, (_, k) =>
          circle(0.7 * room * Math.cos((k * Math.PI) / 3), 0.7 * room * Math.sin((k * Math.PI) / 3), SCREW / 2),
        )
      : [];
  const passage =
    m.bore > 0 || p.shaft > 0 ? [circle(0, 0, Math.min(0.45 * room, Math.max(p.shaft / 2 + 0.5e-3, 2e-3)))] : [];
  const turn = (crank: number) => wavePose(p, crank);
  const [ringTurns, splineTurns]: readonly [Turning, Turning] =
    p.held === 'ring' ? ['fixed', 'output'] : ['output', 'fixed'];
  const slopes = `neutral line ${mm(g.radius)}, wall ${mm(g.wall)}`;
  const parts: Part[] = [];
  if (g.section) {
    parts.push({
      id: 'spline',
      name: `Belt ${g.section.name}, ${p.teeth} teeth`,
      ...m.costs.spline,
      made: 'bought',
      stocked: { shelf: 'belts', id: beltKey(g.section.id, p.teeth, p.width * (p.body === 'cup' ? 1 : 2)) },
      material: 'as supplied',
      note: `closed belt turned inside out, ${mm(p.width * (p.body === 'cup' ? 1 : 2))} wide`,
      curves: [],
      turns: splineTurns,
      flexes: true,
      places: (crank) => [stand(0, 1, turn(crank).spline)],
      seen: () => ({ prisms: [prism(outline, 0, p.width * (p.body === 'cup' ? 1 : 2), [bore])] }),
    });
  } else if (p.body === 'cup') {
    parts.push({
      id: 'spline',
      name: 'Spline',
      ...m.costs.spline,
      made: how(ms),
      material: ms.name,
      note: `${p.teeth} teeth, module ${mm(g.module)}, ${slopes}; cup ${mm(p.cup)} long, closed by ${mm(floor)}; drawn round, as it is made`,
      curves: [
        { layer: 'teeth', outline },
        { layer: 'inside', outline: bore },
        ...screws.map((o) => ({ layer: 'screws', outline: o })),
        ...passage.map((o) => ({ layer: 'passage', outline: o })),
      ],
      turns: splineTurns,
      flexes: true,
      places: (crank) => [stand(0, 1, turn(crank).spline)],
      solid: () => ({
        prisms: [
          prism(outline, 0, p.width, [bore]),
          prism(circle(0, 0, inside + g.wall), p.width, p.cup - floor, [bore]),
          prism(circle(0, 0, inside + g.wall), p.cup - floor, p.cup, [...screws, ...passage]),
        ],
      }),
    });
  } else
    parts.push({
      id: 'spline',
      name: 'Spline',
      ...m.costs.spline,
      made: how(ms),
      material: ms.name,
      note: `${p.teeth} teeth, module ${mm(g.module)}, ${slopes}; open band, ${mm(2 * p.width)} wide; drawn round, as it is made`,
      curves: [
        { layer: 'teeth', outline },
        { layer: 'inside', outline: bore },
      ],
      turns: splineTurns,
      flexes: true,
      places: (crank) => [stand(0, 1, turn(crank).spline)],
      solid: () => ({ prisms: [prism(outline, 0, 2 * p.width, [bore])] }),
    });

  const rim = circle(0, 0, g.outside / 2);
  const spaces = ringOutline(g);
  const bolts =
    p.ringWall >= SCREW + 2e-3
      ? Array.from({ length: 6 }, (_, k) =>
          circle(
            (g.outside / 2 - p.ringWall / 2) * Math.cos(Math.PI / 6 + (k * Math.PI) / 3),
            (g.outside / 2 - p.ringWall / 2) * Math.sin(Math.PI / 6 + (k * Math.PI) / 3),
            SCREW / 2,
          ),
        )
      : [];
  const ring = (
    id: string,
    name: string,
    teeth: number,
    inner: typeof spaces,
    z: number,
    layer: number,
    note: string,
  ): Part => ({
    id,
    name,
    ...(id === 'ring' ? m.costs.ring : m.costs.follow),
    made: how(mr),
    material: mr.name,
    note: `${teeth} spaces, ${note}, outside ${mm(g.outside)}, ${mm(p.width)} wide`,
    curves: [
      { layer: 'outside', outline: rim },
      { layer: 'teeth', outline: inner },
      ...bolts.map((outline) => ({ layer: 'bolts', outline })),
    ],
    turns: id === 'ring' ? ringTurns : splineTurns,
    places: (crank) => [stand(z, layer, id === 'ring' ? turn(crank).ring : turn(crank).spline)],
    solid: () => ({ prisms: [prism(rim, 0, p.width, [inner, ...bolts])] }),
  });
  parts.push(
    ring(
      'ring',
      p.body === 'cup' ? 'Ring' : 'Ring with more teeth',
      ringTeeth(p),
      spaces,
      0,
      0,
      `module ${mm(g.module)}`,
    ),
  );
  if (p.body === 'belt')
    parts.push(
      ring(
        'ring-2',
        'Ring of as many teeth',
        p.teeth,
        ringOutline({ mesh: { ...g.mesh, space: g.follow!.space }, ringTip: g.ringTip, ringRoot: g.ringRoot }, p.teeth),
        p.width,
        3,
        `as many as the spline, so that both turn alike; each ${mm(g.follow!.wider)} wider, since its teeth sway along the ring`,
      ),
    );

  const { bearing: b, rollers: places } = m;
  const shaft = p.shaft > 0 ? [circle(0, 0, p.shaft / 2)] : [];
  const wide = p.width * (p.body === 'cup' ? 1 : 2);
  if (hasRollers(p)) {
    // It stands inside the spline, whose wall it must not touch between the lobes either.
    const plate = alongWave(g.made, -g.wall / 2 - p.slack - PLATE_GAP, 360);
    const seats = places.map(([x, y]) => circle(x, y, b.bore / 2));
    const list = places.map(([x, y]) => `${mm(Math.hypot(x, y))} at ${degrees(Math.atan2(y, x))}`);
    parts.push(
      {
        id: 'generator',
        name: 'Roller plate',
        ...m.costs.generator,
        made: how(mg),
        material: mg.name,
        note: `${places.length} axles of ⌀ ${mm(b.bore)}: ${list.slice(0, 6).join('; ')}${list.length > 6 ? '; …' : ''}`,
        curves: [
          { layer: 'outside', outline: plate },
          ...seats.map((outline) => ({ layer: 'axles', outline })),
          ...shaft.map((outline) => ({ layer: 'bore', outline })),
        ],
        turns: 'input',
        places: (crank) => [stand(-ROLLER_PLATE, -1, crank), stand(wide, 4, crank)],
        solid: () => ({ prisms: [prism(plate, 0, ROLLER_PLATE, [...seats, ...shaft])] }),
      },
      {
        id: 'roller',
        name: `Roller, bearing ${b.name}`,
        ...m.costs.bearing,
        made: 'bought',
        stocked: bearingStocked(b),
        material: 'as supplied',
        note: `${mm(b.bore)} × ${mm(b.outside)} × ${mm(b.width)}`,
        curves: [],
        turns: 'input',
        places: (crank) => {
          const [c, s] = [Math.cos(crank), Math.sin(crank)];
          return places.map(([x, y]) => stand(0, -1, crank, c * x - s * y, s * x + c * y));
        },
        seen: () => ({
          prisms: [prism(circle(0, 0, b.outside / 2), 0, Math.min(b.width, wide), [circle(0, 0, b.bore / 2)])],
        }),
      },
    );
  } else {
    const section = p.run === 'bearing' ? (b.outside - b.bore) / 2 : 0;
    const contour = alongWave(g.made, -g.wall / 2 - section - p.slack, 720);
    parts.push({
      id: 'generator',
      name: 'Generator',
      ...m.costs.generator,
      made: how(mg),
      material: mg.name,
      note:
        `contour ${mm(g.throw)} out at ${p.lobes} ` +
        `lobes${section > 0 ? `, seat of ${b.name}` : ', slides in the spline: grease it'}${p.shaft > 0 ? `, bore ${mm(p.shaft)}` : ''}`,
      curves: [{ layer: 'contour', outline: contour }, ...shaft.map((outline) => ({ layer: 'bore', outline }))],
      turns: 'input',
      places: (crank) => [stand(0, -1, crank)],
      solid: () => ({ prisms: [prism(contour, 0, wide, shaft)] }),
    });
    if (section > 0)
      parts.push({
        id: 'bearing',
        name: `Bearing ${b.name}`,
        ...m.costs.bearing,
        made: 'bought',
        stocked: bearingStocked(b),
        material: 'as supplied',
        note: `${mm(b.bore)} × ${mm(b.outside)} × ${mm(b.width)}; its rings must flex, so the thinnest that carries`,
        curves: [],
        turns: 'input',
        flexes: true,
        places: (crank) => [stand(0, -2, crank)],
        seen: () => ({ prisms: [prism(alongWave(g.line, -g.wall / 2), 0, Math.min(b.width, wide), [contour])] }),
      });
  }
  parts.push(
    ...springParts(
      m.costs.springs.quantity,
      `each presses a lobe outwards by ${stated(p.tension ?? 0, 'force', 4)}; the generator is cut across its lobes and slides on a pin`,
    ),
  );
  return ok(parts);
}

/** Power goes in along the axis at the generator and comes out at the spline's closed end, or at the ring. */
export function strainWavePorts(p: StrainWaveParams): Ports {
  const long = p.body === 'cup' ? p.cup : 2 * p.width;
  return {
    input: { at: [0, 0, hasRollers(p) ? -ROLLER_PLATE : 0], along: 'z', shaft: p.shaft, boredBy: 'shaft' },
    output: { at: [0, 0, hasRollers(p) && p.body !== 'cup' ? long + ROLLER_PLATE : long], along: 'z', shaft: 0 },
  };
}

/** The order of putting a strain-wave stage together. */
export function strainWaveAssembly(p: StrainWaveParams): readonly AssemblyStep[] {
  return [
    {
      do:
        p.held === 'ring'
          ? 'Bolt the ring to the frame; the spline’s end carries the output.'
          : 'Bolt the spline’s closed end to the frame; the ring carries the output on a bearing of its own.',
    },
    hasRollers(p)
      ? {
          do: 'Press the rollers’ axles into one plate, slip the rollers on, and close it with the other.',
          caution: 'Press, do not hammer.',
        }
      : p.run === 'bearing'
        ? {
            do: 'Warm the thin bearing and press it over the generator’s contour, a little at a time all round.',
            caution: 'Press, do not hammer; its rings are thin and crack.',
          }
        : { do: 'Polish and grease the generator’s contour.' },
    ...((p.tension ?? 0) > 0
      ? [
          {
            do: 'Hook in the springs between the generator’s halves; squeeze the halves together and pin them until the spline is in its ring.',
            caution: 'The springs are loaded: keep fingers out between the halves.',
          },
        ]
      : []),
    {
      do: 'Grease teeth and wall, squeeze the generator into the spline from the open end, lobes first.',
      caution: 'Keep fingers out between spline and generator: it snaps in.',
    },
    {
      do:
        'Mark one lobe, hold the spline over the ring with both lobes at spaces, and push it in straight; ' +
        `${p.lobes === 2 ? 'both lobes must be equally deep' : 'all lobes must be equally deep'}, or it ` +
        'sits one tooth to the side and grinds.',
    },
    {
      do:
        'Turn the generator through two turns by hand and look at the mesh on all lobes; a lobe with teeth ' +
        'beside their spaces must be taken out and set again.',
      caution: 'Unpowered; fingers clear of teeth and rollers.',
    },
  ];
}
