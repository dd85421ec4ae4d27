/**
 * A stored record as text, whatever state it is in: what JSON has no word for is written as a word, what goes round in
 * circles is cut. Never throws.
 */
export function rawText(raw: unknown): string {
  const above: unknown[] = [];
  const write = (x: unknown, depth: number): unknown => {
    if (typeof x === 'number' && !Number.isFinite(x)) return String(x);
    if (typeof x === 'bigint' || typeof x === 'function' || typeof x === 'symbol') return String(x);
    if (typeof x !== 'object' || x === null) return x;
    if (depth > 200 || above.includes(x)) return '(nested without end)';
    above.push(x);
    const out = Array.isArray(x)
      ? x.map((y) => write(y, depth + 1))
      : Object.fromEntries(Object.entries(x).map(([k, y]) => [k, write(y, depth + 1)]));
    above.pop();
    return out;
  };
  try {
    return `${JSON.stringify(write(raw, 0), null, 2) ?? 'null'}\n`;
  } catch (error) {
    return `${String(error)}\n`;
  }
}
