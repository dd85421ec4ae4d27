import { stated } from '../units/stated.ts';
import { refuse } from '../result.ts';
import { parseQuantity } from '../units/parse.ts';
import type { TestKind } from './contract.ts';

type Refused = ReturnType<typeof refuse>;

const capital = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);

const tidy = (s: string): string =>
  s
    .toLowerCase()
    .replace(/[_\-./]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
const UNIT_TAIL = /\s(mm|um|m|cm|deg|rad|arcmin|arcsec|kg|g|n|nm|s|ms|a|w|rpm|hz|c|k|percent)$/;

/** Named values above a table or beside it that belong to the rig. */
export function rigFrom(
  kind: TestKind,
  head: Readonly<Record<string, string | number>>,
): Record<string, number | string> {
  const rig: Record<string, number | string> = {};
  for (const [rawKey, raw] of Object.entries(head)) {
    const tail = UNIT_TAIL.exec(` ${tidy(rawKey)}`)?.[1];
    const key = tidy(rawKey).replace(UNIT_TAIL, '').trim();
    const field = kind.rig.find(
      (f) =>
        tidy(f.id.replace(/([A-Z])/g, ' $1')) === key ||
        tidy(f.id) === key.replace(/ /g, '') ||
        tidy(f.label) === key ||
        f.words?.some((w) => w === key),
    );
    if (!field) continue;
    if (field.as === 'choice') {
      const found = field.options.find(
        (o) => o.value === String(raw).toLowerCase() || o.label.toLowerCase() === String(raw).toLowerCase(),
      );
      if (found) rig[field.id] = found.value;
      continue;
    }
    const text = typeof raw === 'number' ? String(raw) : raw;
    const units: Record<string, string> = {
      nm: 'N·m',
      deg: '°',
      arcmin: '′',
      arcsec: '″',
      c: '°C',
      percent: '%',
      k: 'K',
      um: 'µm',
      a: 'A',
      w: 'W',
      hz: 'Hz',
      n: 'N',
    };
    const read = parseQuantity(
      text,
      field.quantity,
      tail ? (units[tail] ?? tail) : typeof raw === 'number' ? '' : undefined,
    );
    if (read.ok) rig[field.id] = read.value.si;
  }
  return rig;
}

/** Why a value is outside its bounds; what is beyond all measuring is not written out. */
function saidOf(value: number | string, min: number, max: number, say: (x: number) => string): string {
  if (typeof value !== 'number' || !Number.isFinite(value)) return 'it is no number';
  const shown = Math.abs(value) < 1e15 ? `${say(value)} is ` : 'it is far ';
  return shown + (value < min ? `less than ${say(min)}` : `more than ${say(max)}`);
}

/** Values of a rig that its fields would take; the others are left out, and said. */
export function soundRig(
  kind: TestKind,
  rig: Readonly<Record<string, number | string>>,
): { rig: Record<string, number | string>; notes: string[] } {
  const notes: string[] = [];
  const kept = Object.entries(rig).filter(([id, value]) => {
    const field = kind.rig.find((f) => f.id === id);
    if (field?.as !== 'quantity') return typeof value === 'string' || Number.isFinite(value);
    if (typeof value === 'number' && value >= field.min && value <= field.max) return true;
    const say = (x: number) => stated(x, field.quantity, 5);
    notes.push(`${field.label} was left out: ${saidOf(value, field.min, field.max, say)}. Set it in the rig.`);
    return false;
  });
  return { rig: Object.fromEntries(kept), notes };
}

/** The first field of a rig that its kind cannot be rigged with, refused. */
export function oddRig(kind: TestKind, rig: Readonly<Record<string, number | string>>): Refused | undefined {
  for (const field of kind.rig) {
    const value = rig[field.id];
    if (field.as !== 'quantity' || typeof value !== 'number') continue;
    if (value >= field.min && value <= field.max) continue;
    return refuse(
      `${field.label} cannot be so.`,
      `${capital(saidOf(value, field.min, field.max, (x) => stated(x, field.quantity, 5)))}.`,
      'Set it in the rig.',
      field.id,
    );
  }
  return undefined;
}
