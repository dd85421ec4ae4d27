import type {
  AnyStageKind,
  DrawOptions,
  Duty,
  Kinematics,
  Opened,
  Stage,
  StageNumbers,
  StageReport,
  StageWish,
} from './contract.ts';

import { freedomAbout } from './freedom.ts';

/**
 * What a stage with a straight output carries in its own terms, N and m/s, where a line tells it as a torque about an arm.
 *
 * @param arm m
 * @example ownDuty({ torque: 2, torqueRms: 1, speed: 3, swing: 10 }, 0.02) // { torque: 100, torqueRms: 50, speed: 0.06, swing: 0.2 }
 */
export function ownDuty(at: Duty, arm: number): Duty {
  return {
    ...at,
    torque: at.torque / arm,
    torqueRms: at.torqueRms / arm,
    speed: at.speed * arm,
    ...(at.equivalent !== undefined && { equivalent: at.equivalent / arm }),
    ...(at.meanSpeed !== undefined && { meanSpeed: at.meanSpeed * arm }),
    ...(at.swing !== undefined && { swing: at.swing * arm }),
  };
}

/**
 * Numbers of a straight output told about an arm: force times arm is torque, way over arm is angle. Power, mass and price stay.
 *
 * @param arm m
 */
export function aboutArm(n: StageNumbers, arm: number): StageNumbers {
  const square = arm * arm;
  return {
    ...n,
    ratio: n.ratio * arm,
    play: [n.play[0] / arm, n.play[1] / arm, n.play[2] / arm],
    stiffness: n.stiffness * square,
    springs: n.springs.map((s) => ({ ...s, stiffness: s.stiffness * square })),
    bendTorque: n.bendTorque * arm,
    stiffnessBeyond: n.stiffnessBeyond * square,
    inertiaOut: n.inertiaOut * square,
    limits: n.limits.map((l) => ({ ...l, torque: l.torque * arm })),
  };
}

/** A stage with a straight output as a line sees it, about the arm that its brief counts with. */
class AboutArm implements Stage {
  readonly straight = true;
  readonly courses?: Stage['courses'];
  readonly map?: Stage['map'];
  private readonly told = new WeakMap<StageNumbers, StageNumbers>();

  constructor(
    private readonly inner: Stage,
    private readonly arm: number,
  ) {
    const { courses, map } = inner;
    if (courses) this.courses = (at) => inner.courses!(this.own(at));
    if (map) this.map = (at) => inner.map!(this.own(at));
  }

  own(at: Duty): Duty {
    return ownDuty(at, this.arm);
  }

  private numbers(n: StageNumbers): StageNumbers {
    let about = this.told.get(n);
    if (!about) this.told.set(n, (about = aboutArm(n, this.arm)));
    return about;
  }

  get kinematics(): Kinematics {
    const { ratio, members, orders } = this.inner.kinematics;
    return { ratio: ratio * this.arm, members, orders: orders.map((o) => ({ ...o, perTurn: o.perTurn * this.arm })) };
  }

  load(at: Duty) {
    return this.numbers(this.inner.load(this.own(at)));
  }

  reads(at: Duty) {
    return this.inner.reads(this.own(at));
  }

  moved(id: string, value: number): Stage | undefined {
    const moved = this.inner.moved(id, value);
    return moved && new AboutArm(moved, this.arm);
  }

  checks(at: Duty) {
    return this.inner.checks(this.own(at));
  }

  stands(at: Duty) {
    return this.inner.stands(this.own(at));
  }

  /** Its figures and checks stay in its own terms; the numbers are the line's. */
  report(at: Duty): StageReport {
    const report = this.inner.report(this.own(at));
    return { ...report, numbers: this.numbers(report.numbers), kinematics: this.kinematics };
  }

  drawing(crank: number, options: DrawOptions) {
    return this.inner.drawing(crank, { ...options, duty: this.own(options.duty) });
  }

  tables() {
    return this.inner.tables();
  }

  parts() {
    return this.inner.parts();
  }

  ports() {
    return this.inner.ports();
  }

  assembly() {
    return this.inner.assembly();
  }

  freedom() {
    const own = this.inner.freedom();
    return own && freedomAbout(own, this.arm);
  }
}

/** A stage as a line sees it: one whose output runs straight about an arm, m, every other as it is. */
export const straightened = (stage: Stage, arm: number): Stage => (stage.straight ? new AboutArm(stage, arm) : stage);

/** A wish about an arm in a straight kind's own terms. */
const ownWish = (want: StageWish, arm: number): StageWish => {
  // What is not looked at is not asked for: a search tells by it which kinds mind the torque.
  const own = {
    ...want,
    ratio: want.ratio / arm,
    ...(want.play !== undefined && { play: want.play * arm }),
    ...(want.stiffness !== undefined && { stiffness: want.stiffness / arm ** 2 }),
    ...(want.duty && { duty: ownDuty({ ...want.duty, torque: 0 }, arm) }),
  };
  delete (own as { bore?: number }).bore;
  return Object.defineProperty(own, 'torque', { get: () => want.torque / arm, enumerable: true });
};

/**
 * A kind as a line sees it: of one whose output runs straight, stages about the arm that the brief counts with.
 *
 * @param arm m; undefined where the brief asks for no straight axis
 * @returns undefined for a straight kind where the brief asks for none
 */
export function atArm(kind: AnyStageKind, arm: number | undefined): AnyStageKind | undefined {
  if (!kind.straight) return kind;
  if (arm === undefined) return undefined;
  return {
    ...kind,
    open: (p, shelf): Opened => {
      const opened = kind.open(p, shelf);
      return opened.ok ? { ok: true, value: straightened(opened.value, arm) } : opened;
    },
    defaults: (want) => kind.defaults(ownWish(want, arm)),
    candidates: (want) => kind.candidates(ownWish(want, arm)),
  };
}
