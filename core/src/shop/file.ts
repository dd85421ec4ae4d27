import { ok, refuse, type Result } from '../result.ts';
import type { Drawer } from './drawer.ts';
import { readShopEdits } from './read.ts';
import type { ShopEdits } from './shelf.ts';

export const SHOP_FORMAT = 'gristmill-shop';
export const SHOP_VERSION = 1;
const MAX = 5_000_000;

/** The text of a shop file: what is given of motors, drivers, supplies, materials, bearings, processes, instruments and factors, SI units, JSON. */
export const writeShopFile = (edits: ShopEdits): string =>
  `${JSON.stringify({ format: SHOP_FORMAT, version: SHOP_VERSION, ...edits }, null, 2)}\n`;

/** Reads the text of a shop file; nothing is taken from one that is damaged anywhere. */
export function readShopFile(text: string): Result<ShopEdits> {
  if (text.length > MAX)
    return refuse('The file is too large.', `Shop files stay under ${MAX / 1e6} MB.`, 'Choose a shop file.');
  let raw: unknown;
  try {
    raw = JSON.parse(text.charCodeAt(0) === 0xfeff ? text.slice(1) : text);
  } catch {
    return refuse(
      'The file cannot be read.',
      'It is not JSON: it may be cut off, or another kind of file.',
      'Choose a file that the shop exported.',
    );
  }
  if (typeof raw !== 'object' || raw === null || (raw as Record<string, unknown>)['format'] !== SHOP_FORMAT)
    return refuse(
      'This is not a shop file.',
      'Its format mark is missing or another one.',
      'Choose a file that the shop exported.',
    );
  const { format: _f, version, ...rest } = raw as Record<string, unknown>;
  if (version !== SHOP_VERSION)
    return refuse(
      version === undefined
        ? 'The shop file does not say its version.'
        : `The shop file’s version ${JSON.stringify(version)?.slice(0, 20)} is not known.`,
      `This Gristmill reads version ${SHOP_VERSION}.`,
      'Update Gristmill, or export the file again.',
    );
  const read = readShopEdits(rest);
  return read.ok ? ok(read.value) : read;
}

/** What lies in two drawers as one list: the second wins where both speak of the same thing. */
function mergeDrawers(a: Drawer | undefined, b: Drawer | undefined): Drawer | undefined {
  if (!a || !b) return b ?? a;
  const both = (of: 'motors' | 'bearings' | 'belts') => (a[of] || b[of] ? { [of]: { ...a[of], ...b[of] } } : {});
  return { ...a, ...b, ...both('motors'), ...both('bearings'), ...both('belts') };
}

/** Two sets of changes as one: the second wins where both speak of the same thing. */
export function mergeEdits(a: ShopEdits, b: ShopEdits): ShopEdits {
  const list = <T extends { readonly id: string }>(x: readonly T[] | undefined, y: readonly T[] | undefined) =>
    x || y ? [...(y ?? []), ...(x ?? []).filter((o) => !y?.some((n) => n.id === o.id))] : undefined;
  const out = {
    factors: { ...a.factors, ...b.factors },
    motors: list(a.motors, b.motors),
    drivers: list(a.drivers, b.drivers),
    supplies: list(a.supplies, b.supplies),
    instruments: list(a.instruments, b.instruments),
    materials: list(a.materials, b.materials),
    bearings: list(a.bearings, b.bearings),
    processes: list(a.processes, b.processes),
    drawer: mergeDrawers(a.drawer, b.drawer),
  };
  return Object.fromEntries(
    Object.entries(out).filter(([, x]) => x !== undefined && Object.keys(x).length > 0),
  ) as ShopEdits;
}
