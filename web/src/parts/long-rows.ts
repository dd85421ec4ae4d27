import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import { useMedia } from './compact.ts';

/** More rows than this are put on the page only where they are in sight. */
const LONG = 120;
/** How many rows stand ready beyond either edge. */
const BEYOND = 12;

/**
 * Rows of a table that may be thousands: those in sight of its own box, with what the others take above and below. On paper, and
 * of a short table, all of them.
 *
 * @param height of a usual row, px; taller ones are measured
 * @param end whether the last rows are looked at first, and again as one comes
 */
export function useLongRows(count: number, height: number, end: boolean) {
  const box = useRef<HTMLDivElement>(null);
  const paper = useMedia('print');
  const long = count > LONG && !paper;
  // It keeps its own state of what is in sight; what it gives is asked for at each render.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: long ? count : 0,
    getScrollElement: () => box.current,
    estimateSize: () => height,
    overscan: BEYOND,
  });
  useEffect(() => {
    if (long && end) rows.scrollToIndex(count - 1, { align: 'end' });
    else if (long) rows.scrollToIndex(0);
  }, [rows, long, end, count]);
  if (!long)
    return { box, long, at: Array.from({ length: count }, (_, i) => i), above: 0, below: 0, measure: undefined };
  const seen = rows.getVirtualItems();
  return {
    box,
    long,
    at: seen.map((r) => r.index),
    above: seen[0]?.start ?? 0,
    below: rows.getTotalSize() - (seen.at(-1)?.end ?? 0),
    measure: rows.measureElement,
  };
}
