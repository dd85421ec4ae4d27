import type { QuantityId } from '../units/quantity.ts';
import type { Instrument } from './instrument.ts';

/**
 * What a channel of a rig is worth: SI value of one count (negative where it counts the other way), and the count that
 * is nought.
 */
export interface ChannelCalibration {
  readonly scale: number;
  readonly zero: number;
}

/** What an instrument may measure for a channel of a quantity; a quantity not named here takes any. */
const MEASURED_BY: Partial<Record<QuantityId, readonly Instrument['measures'][]>> = {
  angle: ['angle'],
  smallAngle: ['angle', 'length'],
  current: ['current'],
  temperature: ['temperature'],
  length: ['length'],
  mass: ['mass'],
  force: ['force', 'mass'],
  torque: ['force', 'mass'],
  count: ['force', 'mass'],
};

/** The instruments that a channel of this quantity can be read with. */
export function instrumentsFor(quantity: QuantityId, instruments: readonly Instrument[]): readonly Instrument[] {
  const by = MEASURED_BY[quantity];
  return by ? instruments.filter((i) => by.includes(i.measures)) : instruments;
}

/** The instrument that keeps the calibration of a channel. */
export const instrumentOfChannel = (name: string, instruments: readonly Instrument[]): Instrument | undefined =>
  instruments.find((i) => i.channels !== undefined && Object.hasOwn(i.channels, name));

/** All calibrations that instruments keep, by channel name; the first on the shelf counts. */
export function calibrationsOf(instruments: readonly Instrument[]): Readonly<Record<string, ChannelCalibration>> {
  return Object.fromEntries([...instruments].reverse().flatMap((i) => Object.entries(i.channels ?? {})));
}

/**
 * The instruments that change when a channel's calibration is kept with `id` alone; with no `id`, it is kept nowhere.
 */
export function keepChannel(
  name: string,
  calibration: ChannelCalibration,
  id: string | undefined,
  instruments: readonly Instrument[],
): Instrument[] {
  return instruments.flatMap((i) => {
    const { [name]: had, ...others } = i.channels ?? {};
    if (i.id === id) return [{ ...i, channels: { ...others, [name]: calibration } }];
    return had ? [{ ...i, channels: others }] : [];
  });
}
