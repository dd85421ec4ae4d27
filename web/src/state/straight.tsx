import {
  alongAxis,
  displayUnit,
  formatQuantity,
  nameAlong,
  straightQuantity,
  travelOf,
  type Brief,
  type LimitKind,
  type QuantityId,
  type StraightFigure,
  type Unit,
} from '@gristmill/core';
import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { useJoint } from './open.ts';
import { useUnits } from './prefs.ts';
import { ArmOfSentences } from './said.ts';

/** Travel for a radian of what is told here, m; undefined where it turns. */
const Arm = createContext<number | undefined>(undefined);

/** Tells what lies in it as forces and ways where a brief is of a straight axis: it is of the line's output. */
export function StraightOf({ brief, children }: { brief: Brief; children: ReactNode }) {
  return <Arm.Provider value={travelOf(brief)}>{children}</Arm.Provider>;
}

/** The same by the brief of the joint that is open. */
export function Straight({ children }: { children: ReactNode }) {
  return <StraightOf brief={useJoint().brief}>{children}</StraightOf>;
}

/** {@link Straight} whose sentences are of the output too. */
export function AllStraight({ children }: { children: ReactNode }) {
  return (
    <Straight>
      <ArmOfSentences.Provider value={travelOf(useJoint().brief)}>{children}</ArmOfSentences.Provider>
    </Straight>
  );
}

/** Writes single values as they are told here, in the reader's units. */
export function useWritten(): (value: number, quantity: QuantityId, digits?: number) => string {
  const units = useUnits();
  const arm = useContext(Arm);
  return (value, quantity, digits) => {
    const told = arm === undefined ? undefined : straightQuantity(quantity, arm);
    return formatQuantity(value * (told?.by ?? 1), told?.quantity ?? quantity, units, digits);
  };
}

/** How values of a quantity are told here: as itself, or along the straight axis, so many times as much. */
export function useTold(quantity: QuantityId): { readonly quantity: QuantityId; readonly by: number } {
  const arm = useContext(Arm);
  return (arm === undefined ? undefined : straightQuantity(quantity, arm)) ?? { quantity, by: 1 };
}

/** The unit that values of a quantity are shown in here, for plots and tables. */
export function useToldUnit(quantity: QuantityId): Unit {
  const units = useUnits();
  const told = useTold(quantity);
  const unit = displayUnit(told.quantity, units);
  return useMemo(() => (told.by === 1 ? unit : { ...unit, factor: unit.factor / told.by }), [unit, told.by]);
}

/** What a limit is called here: the torque of something that runs straight is a force. */
export function LimitName({ kind }: { kind: Pick<LimitKind, 'name' | 'quantity'> }) {
  return nameAlong(kind.name, useContext(Arm));
}

/** A figure as it is told here. */
export const useToldFigure = <F extends StraightFigure>(f: F): F => alongAxis(f, useContext(Arm));
