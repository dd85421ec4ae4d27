import { boundsOf, type StageRecord } from '@gristmill/core';
import { memo, useMemo, useState } from 'react';
import { useStage } from '../state/stages.ts';
import { pathText } from './path-text.ts';

const TINT: Record<string, string> = {
  none: 'none',
  part: 'var(--part)',
  partB: 'var(--part-b)',
  belt: 'var(--belt)',
  hole: 'var(--panel)',
};

/** A small true picture of a stage, from its own geometry. */
export const Glyph = memo(function Glyph({
  stage,
  width,
  height,
  crank = 0,
}: {
  stage: StageRecord;
  width: number;
  height: number;
  /** Angle of its input, rad. */
  crank?: number;
}) {
  const opened = useStage(stage);
  const curves = useMemo(() => {
    const layers = opened?.ok
      ? opened.value.drawing(crank, { duty: { torque: 0, torqueRms: 0, speed: 0 }, glyph: true })
      : opened?.sketch?.drawing(crank, { glyph: true });
    return layers?.flatMap((l) => l.items).filter((i) => i.kind === 'curve');
  }, [opened, crank]);
  // The sheet stays where it is while what is on it turns: as it was at first.
  const [kept, setKept] = useState<{ opened: unknown; b: ReturnType<typeof boundsOf> }>();
  let b = kept?.b;
  if (kept?.opened !== opened) {
    b = curves && boundsOf(curves);
    setKept({ opened, b });
  }
  if (!curves || !b) {
    return (
      <svg width={width} height={height} viewBox="0 0 40 40" aria-hidden="true">
        <rect x="6" y="6" width="28" height="28" fill="none" stroke="var(--fail)" strokeDasharray="3 3" />
        <path d="M14 14 26 26M26 14 14 26" stroke="var(--fail)" />
      </svg>
    );
  }
  const mm = (v: number) => v * 1000;
  return (
    <svg
      width={width}
      height={height}
      viewBox={`${mm(b.x0) - 0.5} ${mm(-b.y1) - 0.5} ${mm(b.x1 - b.x0) + 1} ${mm(b.y1 - b.y0) + 1}`}
      aria-hidden="true"
    >
      {curves.map((c) => (
        <path
          key={c.key}
          d={pathText(c.outline)}
          transform={`translate(${mm(c.at.x)} ${mm(-c.at.y)}) rotate(${(-c.at.turn * 180) / Math.PI})`}
          fill={TINT[c.tint]}
          stroke="var(--ink)"
          strokeWidth={1}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
});
