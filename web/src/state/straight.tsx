import { straightQuantity, travelOf, type Figure, type QuantityId } from '@gristmill/core';
import { createContext, useContext, type ReactNode } from 'react';
import { useJoint } from './open.ts';

/** Travel for a radian of what is told here, m; undefined where it turns. */
const Arm = createContext<number | undefined>(undefined);

/** Tells what lies in it as forces and ways where the joint's brief is of a straight axis: it is of the line's output. */
export function Straight({ children }: { children: ReactNode }) {
  return <Arm.Provider value={travelOf(useJoint().brief)}>{children}</Arm.Provider>;
}

/** How values of a quantity are told here: as itself, or along the straight axis, so many times as much. */
export function useTold(quantity: QuantityId): { readonly quantity: QuantityId; readonly by: number } {
  const arm = useContext(Arm);
  return (arm === undefined ? undefined : straightQuantity(quantity, arm)) ?? { quantity, by: 1 };
}

/** A figure as it is told here. */
export function useToldFigure<F extends Pick<Figure, 'quantity' | 'value'> & Partial<Pick<Figure, 'low' | 'high'>>>(
  f: F,
): F {
  const { quantity, by } = useTold(f.quantity);
  if (by === 1 && quantity === f.quantity) return f;
  return {
    ...f,
    quantity,
    value: f.value * by,
    ...(f.low !== undefined && { low: f.low * by }),
    ...(f.high !== undefined && { high: f.high * by }),
  };
}
