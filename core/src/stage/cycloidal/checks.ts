import { isCrossed } from '../../shop/bearings.ts';
import { stated } from '../../units/stated.ts';
import { check, type Check, type Mend } from '../../figure/index.ts';
import { modeChecks } from '../../gear/index.ts';
import { steppedUp } from '../../math/steps.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { BOLT_WALL } from '../bolt-room.ts';
import { ringWallCheck } from '../ring-wall.ts';
import { ringBore, wallBehind } from './geometry.ts';
import { buildCycloidal, wrongCycloidal } from './build.ts';
import type { CycloidalModel } from './model.ts';
import type { CycloidalParams } from './params.ts';

/** What decides whether a cycloidal stage works. */
export function cycloidalChecks(p: CycloidalParams, at: Duty, m: CycloidalModel, shelf: Shelf): Check[] {
  const g = m.geometry;
  const apart = p.circle * Math.sin(Math.PI / p.pins);
  const few = 0.8e-3;
  const need = factor(shelf, 'lobe.profile') + factor(shelf, 'lobe.place');
  const list = [
    check({
      id: 'undercut',
      of: 'convex',
      name: 'Lobes are whole',
      figure: g.profile.pin,
      limit: g.convex,
      sense: 'max',
      quantity: 'length',
      near: 0.05,
      why: 'Pins cut for a radius as large as the path’s own bend would eat into the lobes.',
      mend: { path: 'throw', value: Number((p.throw * 0.9).toPrecision(3)), label: 'Less eccentricity' },
    }),
    check({
      id: 'pins',
      name: 'Pins clear one another',
      figure: apart - p.pin,
      limit: 0.4e-3,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      near: 0,
      why: 'Their seats need a wall between them.',
      mend: {
        path: 'pin',
        value: Number((Math.floor((apart - 0.4e-3) * 1e4 + 1e-6) / 1e4).toPrecision(9)),
        label: 'Thinner pins',
      },
    }),
    check({
      id: 'seats',
      name: 'Seats hold the pins',
      figure: p.circle / 2 + p.pin / 2 - ringBore(p),
      limit: 0.35 * p.pin,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      near: 0,
      why: 'The housing must clear the lobes’ tips at R + 2e − r, and what is left of each seat must hold its pin.',
      mend: {
        path: 'throw',
        value: Number(Math.max(5e-5, (0.65 * p.pin - 2e-4) / 2 - 1e-6).toPrecision(4)),
        label: 'Less eccentricity',
      },
      advice: 'Take thicker pins or less eccentricity, or hold the pins in plates at both ends.',
    }),
    check({
      id: 'behind',
      of: 'behind',
      name: 'Wall behind the pins',
      figure: wallBehind(p),
      limit: BOLT_WALL,
      sense: 'min',
      quantity: 'length',
      near: 0,
      why: 'The housing must close round its pins: with less than a millimetre behind them they break out.',
      mend: {
        path: 'rim',
        value: steppedUp(p.rim + BOLT_WALL - wallBehind(p), 5e-4),
        label: `Wall ${stated(steppedUp(p.rim + BOLT_WALL - wallBehind(p), 5e-4), 'length', 4)}`,
      },
    }),
    ringWallCheck({
      of: 'rim',
      name: 'Housing’s wall',
      stress: m.rimStress(),
      wall: wallBehind(p),
      material: m.materials[2].material,
      path: 'rim',
      value: p.rim,
      held: p.held === 'ring',
      why: 'The pins of a disc press the housing out on one side, and bend its wall as they go round.',
    }),
    check({
      id: 'bind',
      name: 'Turns without binding',
      figure: m.bind,
      limit: 0,
      sense: 'min',
      quantity: 'smallAngle',
      severity: g.plays.some(([a, b]) => b <= a) ? 'stop' : 'warn',
      near: 0,
      why: `Profile and pins come out up to ${stated(need, 'length', 2)} off; the gap must be more than that.`,
      mend: {
        path: 'offset',
        value: Math.min(
          1e-3,
          steppedUp(p.offset + Math.max(1e-5, (-m.bind * (p.pins - 1) * p.throw) / 2 + 2e-6), 1e-5),
        ),
        label: `Gap ${stated(Math.min(1e-3, steppedUp(p.offset + Math.max(1e-5, (-m.bind * (p.pins - 1) * p.throw) / 2 + 2e-6), 1e-5)), 'length', 4)}`,
      },
    }),
    check({
      id: 'web-rim',
      of: 'web-rim',
      name: 'Web under the lobes',
      figure: m.webs.rim,
      limit: few,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      why: 'Between the output holes and the hollows of the profile.',
      mend: {
        path: 'outCircle',
        value: Number(
          (Math.floor((p.outCircle - 2 * Math.max(1e-4, few - m.webs.rim + 1e-5)) * 1e4 + 1e-6) / 1e4).toPrecision(9),
        ),
        label: 'Smaller circle of output pins',
      },
    }),
    check({
      id: 'web-bearing',
      of: 'web-bearing',
      name: 'Web over the bearing',
      figure: m.webs.bearing,
      limit: few,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      why: 'Between the output holes and the bearing’s seat.',
      mend: {
        path: 'outCircle',
        value: steppedUp(p.outCircle + 2 * Math.max(1e-4, few - m.webs.bearing + 1e-5), 1e-4),
        label: 'Larger circle of output pins',
      },
    }),
    check({
      id: 'web-hole',
      of: 'web-hole',
      name: 'Web between holes',
      figure: m.webs.hole,
      limit: few,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      why: 'Between neighbouring output holes.',
      mend: { path: 'outPins', value: Math.max(3, p.outPins - 1), label: `${Math.max(3, p.outPins - 1)} output pins` },
    }),
    check({
      id: 'bearing-width',
      name: 'Bearing lies inside its disc',
      figure: m.bearing.width,
      limit: p.width + 0.5e-3,
      sense: 'max',
      quantity: 'length',
      near: 0,
      severity: 'warn',
      why: 'Beyond it the bearing runs into its neighbour or a plate.',
      mend: {
        path: 'width',
        value: steppedUp(m.bearing.width, 5e-4),
        label: `Discs ${stated(steppedUp(m.bearing.width, 5e-4), 'length', 4)}`,
      },
    }),
    check({
      id: 'balance',
      of: 'shaking',
      name: 'Shakes little',
      figure: m.shaking,
      limit: 0.5 * 9.81 * m.numbers.mass,
      sense: 'max',
      quantity: 'force',
      severity: 'warn',
      why: 'One disc alone shakes with m·e·ω²; half the stage’s weight is felt.',
      mend: { path: 'discs', value: 2, label: 'Two discs' },
      advice: 'Take two discs, or a counterweight on the crank.',
    }),
    check({
      id: 'alike',
      name: 'Discs are alike',
      figure: g.alike ? 0 : 1,
      limit: 0.5,
      sense: 'max',
      quantity: 'count',
      severity: 'note',
      near: 0,
      why: g.alike
        ? 'One drawing serves every disc.'
        : 'Each disc’s lobes stand at an angle of their own to its holes; the parts give it.',
      advice: 'Choose output pins that share a factor with the lobes, or mark the discs.',
    }),
    check({
      id: 'back',
      of: 'back',
      name: 'Can be turned back',
      figure: m.backward,
      limit: 0.3,
      sense: 'min',
      quantity: 'efficiency',
      severity: 'note',
      why: 'Below this it feels stuck by hand, and at nought it holds.',
      mend:
        p.pinsRun === 'fixed'
          ? { path: 'pinsRun', value: 'sleeves', label: 'Sleeves on the pins' }
          : { path: 'outRun', value: 'sleeves', label: 'Sleeves on the output pins' },
    }),
    ...modeChecks(
      m.modes.filter((x) => x.id !== 'out' && x.id !== 'seat' && x.id !== 'dent'),
      { width: p.width, module: 1 },
      at,
      'Take thicker or more discs, a larger circle or a stronger material.',
    ).map((c) => ({
      ...c,
      ...(c.mend && { mend: { ...c.mend, label: c.mend.label.replace('Face width', 'Discs') } }),
    })),
  ];
  // A second plate holds pins better than any that are thicker.
  const outMend = (pin: number): Mend =>
    p.carriedBy === 'plate'
      ? { path: 'carriedBy', value: 'both', label: 'A plate on either side' }
      : { path: 'outPin', value: pin, label: `Output pins ${stated(pin, 'length', 4)}` };
  const out = m.modes.find((x) => x.id === 'out')!;
  const thicker = steppedUp(p.outPin * Math.cbrt(at.torque / Math.max(1e-9, 0.9 * out.torque)), 5e-4);
  list.push(
    check({
      id: 'out',
      of: 'out',
      name: 'Output pins hold',
      figure: at.torque,
      limit: out.torque,
      sense: 'max',
      quantity: 'torque',
      why: out.why,
      mend: outMend(thicker),
      advice: 'Take thicker or more output pins, or a plate on either side.',
    }),
  );
  const seat = m.modes.find((x) => x.id === 'seat')!;
  // Plates are as thick as their pins.
  const larger = steppedUp(p.outPin * Math.sqrt(at.torque / Math.max(1e-9, 0.9 * seat.torque)), 5e-4);
  list.push(
    check({
      id: 'seat',
      of: 'seat',
      name: 'Output pins’ seats hold',
      figure: at.torque,
      limit: seat.torque,
      sense: 'max',
      quantity: 'torque',
      why: seat.why,
      mend: outMend(larger),
      advice: 'Take a plate on either side, thicker or more output pins, or a stronger material for the plates.',
    }),
  );
  const dent = m.modes.find((x) => x.id === 'dent')!;
  const stronger = (): Mend | undefined => {
    const enough = shelf.bearings
      .filter((b) => !isCrossed(b))
      .sort((a, b) => a.outside - b.outside)
      .filter(
        (b) =>
          b.static * 0.9 > (m.bearing.static * at.torque) / Math.max(1e-9, dent.torque) && b.bore >= m.bearing.bore,
      );
    const fits = enough.find((b) => {
      const tried = { ...p, bearing: b.id };
      const built = buildCycloidal(tried, shelf);
      return built.ok && !wrongCycloidal(tried, built.value);
    });
    return fits && { path: 'bearing', value: fits.id, label: `Bearing ${fits.name}` };
  };
  list.push(
    check({
      id: 'dent',
      of: 'dent',
      name: 'Eccentric bearings hold',
      figure: at.torque,
      limit: dent.torque,
      sense: 'max',
      quantity: 'torque',
      why: dent.why,
      mend: stronger,
      advice: 'Take a larger bearing, or more discs.',
    }),
  );
  if (p.boltsR > 0)
    list.push(
      check({
        id: 'bolts',
        name: 'Screws fit the housing',
        figure: (p.rim - p.pin / 2 - p.boltHole) / 2,
        limit: 1e-3,
        sense: 'min',
        quantity: 'length',
        near: 0,
        why: 'Each hole needs a millimetre of wall to the pins and outwards.',
        mend: { path: 'rim', value: steppedUp(p.boltHole + p.pin / 2 + 2e-3, 5e-4), label: 'Thicker housing' },
      }),
    );
  return list;
}
