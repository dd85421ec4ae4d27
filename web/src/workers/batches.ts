/** A frame, ms. */
const FRAME = 16;

/**
 * Hands results on at most once a frame: thirty lines that come one after the other are shown together, and what comes
 * alone is shown at once.
 *
 * @param now clock, ms
 * @param later runs something after so many ms
 */
export function inBatches(
  now: () => number = () => performance.now(),
  later: (run: () => void, ms: number) => unknown = setTimeout,
): (run: () => void) => void {
  let waiting: (() => void)[] = [];
  let last = -Infinity;
  const flush = () => {
    const list = waiting;
    waiting = [];
    last = now();
    for (const run of list) run();
  };
  return (run) => {
    waiting.push(run);
    if (waiting.length === 1) later(flush, Math.max(0, last + FRAME - now()));
  };
}
