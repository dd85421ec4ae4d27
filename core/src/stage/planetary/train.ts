import {
  carrier,
  central,
  trainRatio,
  trainSpeeds,
  trainTorques,
  type Central,
  type Train,
} from '../../gear/epicyclic.ts';
import { roles, type Member, type PlanetaryParams } from './params.ts';

/** The train of one set, each mesh passing the share of the power that is given. */
export function setTrain(p: PlanetaryParams, etaSun = 1, etaRing = 1): Train {
  const role = roles(p);
  const member: Record<Member, Central> = {
    sun: central(p.zs, p.zp, false, etaSun),
    ring: central(p.zr, p.zp, true, etaRing),
    carrier,
  };
  return { input: member[role.input], output: member[role.output], held: member[role.held] };
}

/** How one set turns and what its members carry, losses left out. */
export interface SetMotion {
  readonly ratio: number;
  /** Magnitude of a member's torque for a newton metre at the output. */
  readonly torqueOn: Readonly<Record<Member, number>>;
  /** Turns of a planet on its pin for a turn of the output, magnitude. */
  readonly planetTurns: number;
}

/**
 * Speeds and torques of a set without loss.
 *
 * Source: Willis; balance of torques of the whole train.
 */
export function setMotion(p: PlanetaryParams): SetMotion {
  const role = roles(p);
  const train = setTrain(p);
  const t = trainTorques(train, 'input');
  const at = { [role.input]: t.input, [role.output]: t.output, [role.held]: t.held } as Record<Member, number>;
  const size = (m: Member) => Math.abs(at[m] / t.output);
  return {
    ratio: trainRatio(train),
    torqueOn: { sun: size('sun'), ring: size('ring'), carrier: size('carrier') },
    planetTurns: Math.abs(trainSpeeds(train).planet),
  };
}
