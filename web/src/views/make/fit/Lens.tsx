import { sayProblem, svgPath, type Outline } from '@gristmill/core';
import type { FitSheet } from '@gristmill/core/fit/fit-sheet';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useRef, useState, type PointerEvent } from 'react';
import { ChoiceField } from '../../../parts/ChoiceField.tsx';
import { today } from '../../../state/bench.ts';
import { useVariant } from '../../../state/open.ts';
import { useEdits } from '../../../state/shelf.ts';
import { useSaid } from '../../../state/said.ts';
import { contentId } from '../../../workers/content.ts';
import { partOverlay } from '../../../workers/solid.ts';

const SIZES = [0.5, 1, 2, 5, 10, 30, 100].map((mm) => ({ value: mm, label: `${mm} mm across` }));
// The drawn one lies on top, dashed, so that what it covers shows through.
const INKS = [
  ['forProcess', 'drawn for the process', 'var(--expected)', undefined],
  ['made', 'as it comes out', 'var(--found)', undefined],
  ['drawn', 'as drawn', 'var(--ink)', '0.02 0.02'],
] as const;

/** Where to look first: the outline's point that lies farthest out to the right. */
function start(outlines: readonly Outline[]): readonly [number, number] {
  let best: readonly [number, number] = [0, 0];
  let most = -Infinity;
  for (const { points } of outlines)
    for (let i = 0; i < points.length; i += 3)
      if (points[i]! > most) {
        most = points[i]!;
        best = [points[i]!, points[i + 1]!];
      }
  return best;
}

/** Contours of a part over one another, through a lens that can be moved. */
export function Lens({ sheet }: { sheet: FitSheet }) {
  const variant = useVariant();
  const shop = useEdits();
  const said = useSaid();
  const parts = sheet.parts.filter((p) => p.process !== undefined);
  const [chosen, setChosen] = useState<string | undefined>();
  const part = parts.find((p) => p.key === chosen) ?? parts[0];
  const [wide, setWide] = useState(2);
  const [moved, setMoved] = useState<{ key: string; x: number; y: number } | undefined>();
  const drag = useRef<{ x: number; y: number; cx: number; cy: number } | undefined>(undefined);
  const correction = part && sheet.corrections[part.key];
  const day = today();
  const query = useQuery({
    queryKey: [
      'overlay',
      variant.id,
      part?.key,
      day,
      ...[variant.stages, variant.housing, variant.output, variant.making, correction, shop].map(contentId),
    ],
    queryFn: ({ signal }) =>
      partOverlay({ variant, shop, key: part!.key, printed: part!.printed, day, correction: correction! }, signal),
    enabled: part !== undefined && correction !== undefined,
    staleTime: Infinity,
    gcTime: 20_000,
    placeholderData: keepPreviousData,
    structuralSharing: false,
  });
  const overlay = query.data?.ok ? query.data.value : undefined;
  const paths = useMemo(
    () => overlay && INKS.map(([key]) => overlay[key].map((o) => svgPath(o, 1000, 5)).join('')),
    [overlay],
  );
  if (!part) return <p className="label">Choose a process, and its contours are shown here over the drawn ones.</p>;
  const home = overlay ? start(overlay.drawn) : ([0, 0] as const);
  const centre = moved?.key === part.key ? moved : { x: home[0] * 1000, y: -home[1] * 1000 };
  const down = (e: PointerEvent<SVGSVGElement>) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    drag.current = { x: e.clientX, y: e.clientY, cx: centre.x, cy: centre.y };
  };
  const move = (e: PointerEvent<SVGSVGElement>) => {
    const d = drag.current;
    if (!d) return;
    const per = wide / e.currentTarget.getBoundingClientRect().width;
    setMoved({ key: part.key, x: d.cx - (e.clientX - d.x) * per, y: d.cy - (e.clientY - d.y) * per });
  };
  const step = (dx: number, dy: number) =>
    setMoved({ key: part.key, x: centre.x + (dx * wide) / 8, y: centre.y + (dy * wide) / 8 });
  const KEYS: Readonly<Record<string, readonly [number, number]>> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  };
  return (
    <>
      <ChoiceField
        label="Part"
        value={part.key}
        options={parts.map((p) => ({ value: p.key, label: said(p.name) }))}
        onChange={(v) => setChosen(String(v))}
      />
      <ChoiceField label="Lens" value={wide} options={SIZES} onChange={(v) => setWide(Number(v))} />
      {query.data && !query.data.ok ? <p role="alert">{sayProblem(query.data.problem)}</p> : null}
      {query.isError ? <p role="alert">The contours could not be worked out: {query.error.message}.</p> : null}
      <svg
        viewBox={`${centre.x - wide / 2} ${centre.y - wide / 2} ${wide} ${wide}`}
        className="mt-1 w-full cursor-move touch-none border border-rule bg-panel"
        role="img"
        aria-label={`Contours of ${said(part.name)}, magnified; drag or use the arrow keys to move`}
        tabIndex={0}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={() => (drag.current = undefined)}
        onKeyDown={(e) => {
          const to = KEYS[e.key];
          if (!to) return;
          e.preventDefault();
          step(...to);
        }}
        data-lens={overlay ? 'ready' : 'waiting'}
      >
        {paths?.map((d, i) => {
          const [key, , colour, dash] = INKS[i]!;
          return (
            <path
              key={key}
              d={d}
              fill="none"
              stroke={colour}
              strokeWidth={(key === 'drawn' ? 0.0045 : 0.006) * wide}
              {...(dash && {
                strokeDasharray: dash
                  .split(' ')
                  .map((x) => Number(x) * wide)
                  .join(' '),
              })}
            />
          );
        })}
      </svg>
      <p className="label flex flex-wrap">
        {INKS.map(([key, name, colour, dash]) => (
          <span key={key} className="mr-3 whitespace-nowrap">
            <span style={{ color: colour }} aria-hidden>
              {dash ? '╌╌' : '──'}
            </span>{' '}
            {name}
          </span>
        ))}
      </p>
    </>
  );
}
