import type { StageRecord } from '@gristmill/core';
import { useEffect, useState } from 'react';
import { Glyph } from '../../parts/Glyph.tsx';

/** Turns of the input a second. */
const PACE = 0.12;

/** A stage that turns by itself, by the code that draws it everywhere; it stands for whoever wants less motion. */
export function Turning({ stage, width, height }: { stage: StageRecord; width: number; height: number }) {
  const [crank, setCrank] = useState(0);
  useEffect(() => {
    if (matchMedia('(prefers-reduced-motion: reduce)').matches) return;
    let last: number | undefined;
    let frame = requestAnimationFrame(function turn(now) {
      const passed = last === undefined ? 0 : Math.min(100, now - last);
      last = now;
      setCrank((c) => c + (passed / 1000) * PACE * 2 * Math.PI);
      frame = requestAnimationFrame(turn);
    });
    return () => cancelAnimationFrame(frame);
  }, []);
  return <Glyph stage={stage} width={width} height={height} crank={crank} />;
}
