import { useEffect, useState, type ReactNode } from 'react';

const waiting: (() => void)[] = [];

/** Lets one part in after another, each in a task of its own once what came before has been painted. */
function nextPart(): void {
  requestAnimationFrame(() =>
    setTimeout(() => {
      waiting.shift()?.();
      if (waiting.length > 0) nextPart();
    }),
  );
}

function wait(enter: () => void): () => void {
  waiting.push(enter);
  if (waiting.length === 1) nextPart();
  return () => {
    const at = waiting.indexOf(enter);
    if (at >= 0) waiting.splice(at, 1);
  };
}

/**
 * A part of a view that comes a frame after the rest: a view of many parts that all came at once would hold the page for
 * longer than a frame. Once there it stays, whatever changes in it.
 */
export function Later({ children }: { children: ReactNode }) {
  const [here, setHere] = useState(false);
  useEffect(() => wait(() => setHere(true)), []);
  return here ? children : null;
}

/**
 * How much of a long list is shown: a few more each frame until all of it is.
 *
 * @param total entries of the list
 * @param step entries that come in a frame
 */
export function useGrowing(total: number, step: number): number {
  const [shown, setShown] = useState(step);
  useEffect(() => (shown < total ? wait(() => setShown(shown + step)) : undefined), [shown, total, step]);
  return Math.min(total, shown);
}
