// Puts every change into the sources at once, each behind a question: what is changed is chosen while they run.
import type { Mutant } from './places.ts';

interface Numbered {
  readonly m: Mutant;
  readonly i: number;
}

/** The text from one point to another, with all changes that lie within it. */
function within(text: string, from: number, till: number, list: readonly Numbered[]): string {
  let [out, at] = ['', from];
  for (let k = 0; k < list.length;) {
    const { m, i } = list[k]!;
    let next = k + 1;
    while (next < list.length && list[next]!.m.from < m.till) next++;
    const changed = text.slice(m.from, m.start) + m.to + text.slice(m.end, m.till);
    const whole = within(text, m.from, m.till, list.slice(k + 1, next));
    out += `${text.slice(at, m.from)}(globalThis.__changed?.(${i}) ? (${changed}) : (${whole}))`;
    at = m.till;
    k = next;
  }
  return out + text.slice(at, till);
}

/** A source with each of its changes behind a question of its number. */
export function instrumented(text: string, file: string, mutants: readonly Mutant[]): string {
  const own = mutants
    .map((m, i) => ({ m, i }))
    .filter(({ m }) => m.file === file)
    .sort((a, b) => a.m.from - b.m.from || b.m.till - a.m.till);
  return within(text, 0, text.length, own);
}
