import { pieceFigures } from '../costs.ts';
import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import { modeFigures } from '../../gear/index.ts';
import { term, type Figure, type FigureMaker, worked, exact } from '../../figure/index.ts';
import { cutOff } from '../../lobed/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { bentBy } from '../ring-wall.ts';
import type { Duty } from '../contract.ts';
import { ringBore, seated, wallBehind } from './geometry.ts';
import type { CycloidalModel } from './model.ts';
import { branchPins, heldShare, type CycloidalParams } from './params.ts';

/** What a cycloidal stage is told to be worth, each with its working. */
export function cycloidalFigures(
  p: CycloidalParams,
  at: Duty,
  shelf: Shelf,
  m: CycloidalModel,
  make: FigureMaker<CycloidalModel>,
): Figure[] {
  const g = m.geometry;
  const Z = term('Z', 'pins', p.pins, 'count', 'field', 'pins');
  const e = term('e', 'eccentricity', p.throw, 'length', 'field', 'throw');
  const R = term('R', 'radius of the pin circle', p.circle / 2, 'length', 'field', 'circle');
  const T = term('T', 'peak torque', at.torque, 'torque', 'brief');
  const law = 'gearing law: every contact normal passes through the pitch point, Z·e from the ring’s middle';
  return [
    exact('ratio', 'Ratio', 'ratio', m.numbers.ratio, () => ({
      formula: p.held === 'ring' ? '−(Z − d)/d' : 'Z/d',
      terms: [Z, term('d', 'lobes less than pins', p.difference, 'count', 'field', 'difference')],
      source: 'd lobes for each turn of the crank',
    })),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      (x) => x.forward,
      () => ({
        formula: '1/(1 + Λ_pins + Λ_out + Λ_bearing)',
        terms: [
          term('Λ_pins', 'loss at the pins', m.load.lossPins, 'efficiency', 'computed'),
          term('Λ_out', 'loss at the output pins', m.load.lossOut, 'efficiency', 'computed'),
          term('Λ_bearing', 'loss in the eccentric bearings', m.load.lossBearing, 'efficiency', 'computed'),
        ],
        source: 'Σ µ·F·sliding way for a radian of the output, over a pitch of the crank',
      }),
    ),
    make.figure(
      'back',
      'Efficiency, turned back',
      'efficiency',
      (x) => x.backward,
      () => ({
        formula: '1 − Λ',
        terms: [
          term('Λ', 'all losses', m.load.lossPins + m.load.lossOut + m.load.lossBearing, 'efficiency', 'computed'),
        ],
        source: 'the same losses, taken from what comes in at the output',
      }),
    ),
    exact('k', 'Shortening k', 'count', (p.throw * branchPins(p)) / (p.circle / 2), () => ({
      formula: p.difference > 1 ? 'e·Z/(d·R)' : 'e·Z/R',
      terms: [
        e,
        Z,
        R,
        ...(p.difference > 1 ? [term('d', 'lobes fewer than pins', p.difference, 'count', 'field', 'difference')] : []),
      ],
      source: 'shape of the lobes: below 1; 0.5 to 0.8 is usual',
    })),
    exact('convex', 'Smallest convex radius', 'length', g.convex, () => ({
      formula: '(R² + e²Z² − 2ReZ·cos)^(3/2)/(R² + e²Z³ − ReZ(Z + 1)·cos), least',
      terms: [R, e, Z],
      source: 'curvature of the path of pin centres; pins must be cut smaller',
    })),
    worked(
      {
        id: 'play',
        name: 'Play',
        quantity: 'smallAngle',
        value: m.numbers.play[0],
        low: m.numbers.play[1],
        high: m.numbers.play[2],
      },
      () => ({
        formula: 'discs against pins + output holes',
        terms: [
          term('φ_d', 'discs', m.playDisc, 'smallAngle', 'computed'),
          term('φ_o', 'output holes', m.playOut, 'smallAngle', 'computed'),
          term('p', 'pins off their places', factor(shelf, 'lobe.place'), 'length', 'shop', 'lobe.place'),
          term('s', 'spread of the profile', factor(shelf, 'lobe.profile'), 'length', 'shop', 'lobe.profile'),
        ],
        source: 'first pins to touch either way, exact; holes in series',
      }),
    ),
    make.figure(
      'playDisc',
      'Play of the discs',
      'smallAngle',
      (x) => x.playDisc,
      () => ({
        formula: 'first touch on − first touch back, mean over a pitch',
        terms: [
          term('δ', 'gap all round', p.offset, 'length', 'field', 'offset'),
          e,
          Z,
          term('ΔR', 'circle smaller by', p.ringChange, 'length', 'field', 'ringChange'),
        ],
        source: `${law}; of the order of 2δ/((Z − 1)·e)`,
      }),
    ),
    exact('playOut', 'Play of the output holes', 'smallAngle', m.playOut, () => ({
      formula: 'c/(R_o·sin), c the diametral clearance',
      terms: [
        term('c', 'hole wider by', p.outGap, 'length', 'field', 'outGap'),
        term('R_o', 'radius of their circle', p.outCircle / 2, 'length', 'computed'),
      ],
      source: 'the pin with the longest lever decides; worst crank angle',
    })),
    sampledFigure(p, shelf, m),
    make.figure(
      'ripple',
      'Ripple',
      'smallAngle',
      (x) => x.ripple,
      () => ({
        formula: 'wander of the middle between both touches + 2p/((Z − 1)·e)',
        terms: [term('p', 'pins off their places', factor(shelf, 'lobe.place'), 'length', 'shop', 'lobe.place')],
        source: 'transmission error over a turn of the crank; orders Z and Z − 1',
      }),
    ),
    ...partLoadFigures(make, m, at),
    ...springFigures(
      make,
      m,
      'each spring by the energy it stores for a newton metre at the output, mean over a pitch',
    ),
    make.figure(
      'carrying',
      'Pins that carry',
      'count',
      (x) => x.load.carrying,
      () => ({
        formula: 'pins whose gap has closed at the peak, mean over a pitch',
        terms: [T],
        source: 'contact equilibrium',
      }),
    ),
    make.figure(
      'pinForce',
      'Worst pin',
      'force',
      (x) => x.load.pinForce,
      () => ({
        formula: 'c·(θ·a − gap), turned on by θ until all pins together carry T',
        terms: [T, term('c', 'one contact', m.contact, 'stiffnessPerLength', 'computed')],
        source: 'contact equilibrium of all pins at their own gaps',
      }),
    ),
    make.figure(
      'pressure',
      'Lobe pressure',
      'stress',
      (x) => x.load.pressure,
      () => ({
        formula: '√(F·E*(1/r + 1/ρ)/(π·b))',
        terms: [
          term('r', 'pin’s radius', p.pin / 2, 'length', 'field', 'pin'),
          term('b', 'thickness', p.width, 'length', 'field', 'width'),
        ],
        source: 'Johnson, Contact Mechanics, 4.2, with the lobe’s own curvature there',
      }),
    ),
    make.figure(
      'outForce',
      'Worst output pin',
      'force',
      (x) => x.load.outForce,
      () => ({
        formula: 'T/(R_o·Σ sin²)',
        terms: [T, term('n', 'output pins', p.outPins, 'count', 'field', 'outPins')],
        source: 'pushes by levers; about 4T/(n·R_o)',
      }),
    ),
    make.figure(
      'outBend',
      'Output pin bending',
      'stress',
      (x) => x.outBend,
      () => ({
        formula: '32·M/(π·d³)',
        terms: [term('d', 'output pin', p.outPin, 'length', 'field', 'outPin')],
        source:
          p.carriedBy === 'both'
            ? 'beam between two plates whose seats let its ends lean'
            : 'beam standing out of one plate, pushed by each disc at its middle',
      }),
    ),
    make.figure(
      'bearing',
      'Eccentric bearing load',
      'force',
      (x) => x.load.bearing,
      () => ({
        formula: '|Σ pins − output pins|',
        terms: [T],
        source: 'equilibrium of a disc; worst over a pitch',
      }),
    ),
    ...(Number.isFinite(m.bearingLife)
      ? [
          make.figure(
            'life',
            'Life of the eccentric bearings',
            'life',
            (x) => x.bearingLife,
            () => ({
              formula: '(C/P)³·10⁶ turns at ω_in(1 + 1/(Z − 1))',
              terms: [term('C', 'dynamic rating', m.bearing.dynamic, 'force', 'shop'), Z],
              source: 'ISO 281; cubic mean over a pitch',
            }),
          ),
        ]
      : []),
    ...(p.difference > 1
      ? [
          exact('cutOff', 'Cut off each lobe', 'length', cutOff(g.profile, p.difference), () => ({
            formula: 'height of a whole lobe − height where both branches cross',
            terms: [e, Z],
            source: 'each branch serves every second pin; what both leave is the disc',
          })),
        ]
      : []),
    exact('web-rim', 'Web under the lobes', 'length', m.webs.rim, () => ({
      formula: 'R − r − e − (⌀_o + hole)/2',
      terms: [R, e],
      source: 'the disc as drawn',
    })),
    exact('web-bearing', 'Web over the bearing', 'length', m.webs.bearing, () => ({
      formula: '(⌀_o − hole − D)/2',
      terms: [term('D', 'bearing', m.bearing.outside, 'length', 'shop')],
      source: 'the disc as drawn',
    })),
    exact('web-hole', 'Web between holes', 'length', m.webs.hole, () => ({
      formula: '⌀_o·sin(π/n) − hole',
      terms: [term('n', 'output pins', p.outPins, 'count', 'field', 'outPins')],
      source: 'the disc as drawn',
    })),
    exact('behind', 'Wall behind the pins', 'length', wallBehind(p), () => ({
      formula: seated(p) ? 't − d/2' : 'D/2 + t − R_b',
      terms: [
        term('t', 'housing outside the pin circle', p.rim, 'length', 'field', 'rim'),
        ...(seated(p)
          ? [term('d', 'pin', p.pin, 'length', 'field', 'pin')]
          : [
              term('D', 'pin circle', p.circle, 'length', 'field', 'circle'),
              term('R_b', 'bore that clears the lobes', ringBore(p), 'length', 'computed'),
            ]),
      ],
      source: 'plane geometry',
    })),
    make.figure(
      'rim',
      'Housing’s wall, bending',
      'stress',
      (x) => x.rimStress(),
      () =>
        bentBy('pins of a disc', [
          term('F', 'worst pin', m.load.pinForce, 'force', 'computed'),
          term('R', 'middle of the wall', (g.outside - wallBehind(p)) / 2, 'length', 'computed'),
          term('b', 'width of a disc', p.width, 'length', 'field', 'width'),
          term('t', 'wall behind the pins', wallBehind(p), 'length', 'computed'),
        ]),
    ),
    exact('shaking', 'Shaking force', 'force', m.shaking, () => ({
      formula: p.discs === 1 ? 'm·e·ω²' : 'discs evenly phased cancel it',
      terms: [term('m', 'one disc with its bearing', m.masses[0], 'mass', 'computed'), e],
      source: 'at the brief’s speed',
    })),
    exact('couple', 'Shaking couple', 'torque', m.couple, () => ({
      formula: p.discs === 2 ? 'm·e·ω²·b' : p.discs === 3 ? '√3·m·e·ω²·b' : 'none of its own',
      terms: [term('b', 'from disc to disc', p.width, 'length', 'field', 'width')],
      source: 'at the brief’s speed',
    })),
    ...modeFigures(m.modes, make, (x) => x.modes),
    ...pieceFigures(
      make,
      {
        discs: m.costs.disc,
        bearings: m.costs.bearing,
        housing: m.costs.ring,
        crank: m.costs.crank,
        'rod of the crank': m.costs.rod,
        plates: m.costs.plate,
        pins: m.costs.pin,
        'output pins': m.costs.outPin,
      },
      {
        mass: 'volume times density of the shop’s materials',
        money: 'material by mass, work by lobe for milled parts',
      },
    ),
  ];
}

/** Transmission error of made specimens, sampled. */
function sampledFigure(p: CycloidalParams, shelf: Shelf, m: CycloidalModel): Figure {
  const held = heldShare(p);
  const [place, profile] = [factor(shelf, 'lobe.place'), factor(shelf, 'lobe.profile')];
  // Discs that turn together average what each would do alone.
  const share = held / Math.sqrt(p.discs);
  const e = m.error();
  return worked(
    {
      id: 'transmissionError',
      name: 'Transmission error, end to end',
      quantity: 'smallAngle',
      value: e.likely * share,
      low: e.low * share,
      high: e.high * share,
    },
    () => ({
      formula: 'first touch over a turn of the crank, largest less smallest',
      terms: [
        term('p', 'pins off their places, half range', place, 'length', 'shop', 'lobe.place'),
        term('s', 'profile off, half range', profile, 'length', 'shop', 'lobe.profile'),
        term('n', 'discs', p.discs, 'count', 'field', 'discs'),
      ],
      source: '120 specimens drawn with seed 1; band 2.5–97.5 %',
    }),
  );
}
