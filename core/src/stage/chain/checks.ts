import { BOLT_WALL, boltRoom, circleMend } from '../bolt-room.ts';
import { check, type Check, type Mend } from '../../figure/index.ts';
import { CHAINS } from '../../shop/chains.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { factor } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { boreChecks, isBoreLimit } from '../bore-holds.ts';
import { limitChecks } from '../limits.ts';
import type { ChainModel } from './model.ts';
import type { ChainParams } from './params.ts';

const byStrength = [...CHAINS].sort((a, b) => a.breaks - b.breaks);

/** The weakest chain that is so many times as strong. */
const stronger = (p: ChainParams, m: ChainModel, times: number): Mend | undefined => {
  const next = byStrength.find((c) => c.breaks >= m.chain.breaks * times * 0.999 && c.breaks > m.chain.breaks);
  return next && { path: 'size', value: next.id, label: `Chain ${next.id}` };
};

/** The change that lets teeth bear so many times as much: a stronger material of the same making. */
function strongerTeeth(p: ChainParams, m: ChainModel, i: 0 | 1, times: number, shelf: Shelf): Mend | undefined {
  const now = m.materials[i].material;
  const better = [...shelf.materials]
    .filter((x) => x.made !== 'bought' && x.strength >= now.strength * times)
    .sort((a, b) => Number(a.made !== now.made) - Number(b.made !== now.made) || a.price - b.price)[0];
  return better && { path: i === 0 ? 'material1' : 'material2', value: better.id, label: better.name };
}

/** What decides whether a chain stage works, each with its mend. */
export function chainChecks(p: ChainParams, at: Duty, shelf: Shelf, m: ChainModel): Check[] {
  const L = m.layout;
  const small = Math.min(p.z1, p.z2);
  const own = m.limits.filter((l) => !isBoreLimit(l));
  const list = limitChecks(own, at, 'Take a larger chain or more teeth.', (limit, times) =>
    /^(break|tire|crush)-/.test(limit.id)
      ? strongerTeeth(p, m, limit.id.endsWith('0') ? 0 : 1, times, shelf)
      : stronger(p, m, times),
  );
  list.push(...boreChecks(m.limits, m.bores, at));
  list.push(
    check({
      id: 'mesh',
      of: 'mesh',
      name: 'Teeth in mesh',
      figure: Math.min(L.mesh[0]!, L.mesh[L.driven]!),
      limit: 5,
      sense: 'min',
      quantity: 'count',
      severity: 'warn',
      near: 0,
      why: 'Five or more share the pull, and keep a worn chain from climbing.',
      mend: () => {
        const links = L.links + 2 * Math.ceil((5 / Math.min(L.mesh[0]!, L.mesh[L.driven]!)) * 4);
        return p.setBy === 'links' && small >= 11
          ? { path: 'links', value: links, label: `${links} links` }
          : undefined;
      },
      advice: 'Take more teeth on the small sprocket, a longer chain, or an idler on its outside.',
    }),
    check({
      id: 'teeth',
      of: 'ripple',
      name: 'Smallest sprocket runs smoothly',
      figure: small,
      limit: 11,
      sense: 'min',
      quantity: 'count',
      severity: 'warn',
      near: 0,
      why: 'With few teeth the chain’s speed ripples, its joints turn far and the tooth takes a knock from each roller.',
      mend: { path: p.z1 <= p.z2 ? 'z1' : 'z2', value: 11, label: 'Eleven teeth' },
      advice: 'Give both sprockets eleven teeth or more.',
    }),
    check({
      id: 'even',
      of: 'links',
      name: 'Links are even',
      figure: L.links % 2,
      limit: 0.5,
      sense: 'max',
      quantity: 'count',
      severity: 'warn',
      near: 0,
      why: 'An odd number takes an offset link, which bears four fifths and is often not to be had.',
      mend: { path: 'links', value: L.links + 1, label: `${L.links + 1} links` },
      advice: 'Take an even number of links.',
    }),
    check({
      id: 'speed',
      of: 'speed',
      name: 'Chain speed',
      figure: m.chainSpeed,
      limit: factor(shelf, 'chain.speed'),
      sense: 'max',
      quantity: 'linearSpeed',
      severity: 'warn',
      why: 'Faster chains want an oil bath, and a cover that stands a broken chain.',
      advice: 'Take a smaller sprocket, or put the chain where the line turns more slowly.',
    }),
  );
  for (const [i, place, bore] of [
    [0, 'bore1', p.bore1],
    [1, 'bore2', p.bore2],
  ] as const) {
    const limit = 0.5 * m.chain.roller;
    list.push(
      check({
        id: `wall-${i + 1}`,
        name: `Wall over the bore, ${i === 0 ? 'driving' : 'driven'} sprocket`,
        figure: m.walls[i],
        limit,
        sense: 'min',
        quantity: 'length',
        severity: 'warn',
        why: 'Between the bore, with its keyway or flat, and the seats of the rollers.',
        mend:
          bore - 2 * (limit - m.walls[i]) > 2e-3
            ? {
                path: place,
                value: Math.floor((bore - 2.2 * (limit - m.walls[i])) * 2e3) / 2e3,
                label: 'Smaller bore',
              }
            : undefined,
        advice: 'Take a smaller shaft or more teeth.',
      }),
    );
  }
  if (p.bolts2 > 0) {
    const bolts = { bolts: p.bolts2, circle: p.boltCircle2, hole: p.boltHole };
    const between = [p.bore2 / 2, m.gaps[1].root] as const;
    list.push(
      check({
        id: 'bolts',
        name: 'Screws fit the driven sprocket',
        figure: boltRoom(bolts, ...between),
        limit: BOLT_WALL,
        sense: 'min',
        quantity: 'length',
        near: 0,
        why: 'Each hole needs a millimetre of wall to the teeth and the bore, and heads stand beside one another.',
        mend: () => circleMend(bolts, ...between),
        advice: 'Take fewer or smaller screws, or a larger sprocket.',
      }),
    );
  }
  return list;
}
