import { check, type Check } from '../figure/index.ts';
import { lifeAsked } from '../gear/lasting.ts';
import type { Bearing } from '../schema/joint.ts';
import { equivalentLoad, ratedLife, staticLoad } from '../shop/bearings.ts';
import type { Duty } from '../stage/contract.ts';

/** What presses a bearing: across and along, at the peak and for the life, N; and how fast it turns, rad/s. */
interface Pressed {
  readonly bearing: Bearing;
  readonly most: number;
  readonly mostAlong: number;
  readonly ever: number;
  readonly everAlong: number;
  readonly speed: number | undefined;
}

/** How the two checks are told: ids, names, and what is said of the forces after the formula's source. */
interface Said {
  readonly ids: readonly [safety: string, life: string];
  readonly of: string;
  readonly why: string;
  readonly advice: string;
}

/** Whether the bearings of a shaft bear what presses them: static safety by ISO 76, rated life by ISO 281. */
export function bearingsBear(p: Pressed, at: Duty, { ids, of, why, advice }: Said): Check[] {
  const safety = check({
    id: ids[0],
    name: `Bearings of ${of}, static safety`,
    figure: p.bearing.static / staticLoad(p.most, p.mostAlong),
    limit: 1,
    sense: 'min',
    quantity: 'ratio',
    near: 0.5,
    why: `C0/P0 by ISO 76: ${why}`,
    advice,
  });
  if (!p.speed || !(p.ever > 0)) return [safety];
  return [
    safety,
    check({
      id: ids[1],
      name: `Bearings of ${of} last`,
      figure: ratedLife(p.bearing, equivalentLoad(p.bearing, p.ever, p.everAlong), p.speed),
      limit: lifeAsked(at),
      sense: 'min',
      quantity: 'life',
      near: 0.5,
      severity: 'warn',
      why: `(C/P)³·10⁶ turns by ISO 281: ${why}`,
      advice,
    }),
  ];
}
