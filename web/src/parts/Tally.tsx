import { LIMIT_KINDS, sayBanded, type SettledVerdict } from '@gristmill/core';
import { useState } from 'react';
import { usePrefs, useUnits } from '../state/prefs.ts';
import { LimitName, useTold } from '../state/straight.tsx';
import { useCompact } from './compact.ts';
import { FigureText, FoundText } from './FigureText.tsx';
import { Scale } from './Scale.tsx';
import { askedMark, foundSource, settledNote, verdictWord } from './words.ts';

function Row({ verdict, width }: { verdict: SettledVerdict; width: number }) {
  const units = useUnits();
  const kind = LIMIT_KINDS[verdict.id];
  const told = useTold(kind.quantity);
  const word = verdictWord(verdict);
  const { finding } = verdict;
  const found = finding?.found;
  const note = settledNote(verdict);
  return (
    <li className="rule-b py-1.5" data-limit={verdict.id} data-state={verdict.state} data-by={verdict.by}>
      <div className="flex items-center justify-between gap-2">
        <span className="truncate font-semibold" title={kind.help}>
          <LimitName kind={kind} />
        </span>
        {verdict.id === 'noise' ? null : (
          <Scale
            width={width}
            label={`${kind.name}: ${word.text}`}
            asked={askedMark(verdict.asked, verdict.sense)}
            expected={verdict.figure}
            found={found && finding ? { value: found.value, U: found.U, bound: finding.bound } : undefined}
          />
        )}
      </div>
      <div className="flex flex-wrap items-baseline justify-between gap-x-2 text-[12.5px]">
        <span className="num">
          {verdict.sense === 'either' || !Number.isFinite(verdict.asked)
            ? ''
            : `${verdict.sense === 'min' ? '≥' : '≤'} ${sayBanded({ value: verdict.asked * told.by }, told.quantity, units)}`}
          {verdict.need === 'wish' ? (
            <span className="label"> {verdict.suggested ? 'only suggested' : 'wish'}</span>
          ) : null}
        </span>
        <span className={`whitespace-nowrap ${word.tone}`}>
          {word.mark} {word.text}
          {verdict.by === 'found' ? <span className="text-found">, found</span> : null}
        </span>
      </div>
      <div className="flex flex-wrap items-baseline justify-between gap-x-2 text-[12.5px]">
        {verdict.figure ? (
          <FigureText figure={verdict.figure} at={{ stageId: undefined, figureId: verdict.figure.id }} />
        ) : (
          <span className={verdict.says ? '' : 'label'}>{verdict.says ?? 'nothing expected yet'}</span>
        )}
        {found && finding ? (
          <FoundText name={kind.name.toLowerCase()} found={found} bound={finding.bound} {...foundSource(finding)} />
        ) : null}
      </div>
      {note ? <p className="text-[12px] leading-tight text-muted first-letter:uppercase">{note}.</p> : null}
    </li>
  );
}

/** One row a limit of the brief: asked, expected, found on one short scale. Collapsible; its width is the reader's. */
export function Tally({ verdicts }: { verdicts: readonly SettledVerdict[] | undefined }) {
  const { tallyOpen: open, tallyWidth, set } = usePrefs();
  const compact = useCompact();
  // On a phone it would stand in the way: there it waits to be asked for.
  const [asked, setAsked] = useState(false);
  const tallyOpen = compact ? asked : open;
  const unfold = (on: boolean) => (compact ? setAsked(on) : set({ tallyOpen: on }));
  if (!tallyOpen) {
    return (
      <aside
        aria-label="Tally"
        className="no-print border-l border-rule-strong bg-panel max-[1099px]:border-l-0 max-[1099px]:border-t"
      >
        <button
          type="button"
          className="h-full px-1.5 py-3 [writing-mode:vertical-rl] max-[1099px]:[writing-mode:horizontal-tb] compact:w-full compact:py-1.5"
          aria-expanded={false}
          onClick={() => unfold(true)}
        >
          Tally
        </button>
      </aside>
    );
  }
  const resize = (width: number) => set({ tallyWidth: Math.round(Math.min(560, Math.max(240, width))) });
  return (
    <aside
      aria-label="Tally"
      className="no-print relative flex min-h-0 flex-col border-l border-strong bg-panel max-[1099px]:!w-full max-[1099px]:border-l-0 max-[1099px]:border-t"
      style={{ width: tallyWidth }}
    >
      <div
        role="separator"
        aria-orientation="vertical"
        aria-label="Width of the tally"
        aria-valuenow={tallyWidth}
        aria-valuemin={240}
        aria-valuemax={560}
        tabIndex={0}
        className="absolute inset-y-0 -left-1 z-10 w-2 cursor-col-resize max-[1099px]:hidden"
        onKeyDown={(e) => {
          if (e.key === 'ArrowLeft') resize(tallyWidth + 16);
          if (e.key === 'ArrowRight') resize(tallyWidth - 16);
        }}
        onPointerDown={(e) => {
          const from = e.clientX;
          const was = tallyWidth;
          const move = (m: PointerEvent) => resize(was + from - m.clientX);
          const up = () => {
            window.removeEventListener('pointermove', move);
            window.removeEventListener('pointerup', up);
          };
          window.addEventListener('pointermove', move);
          window.addEventListener('pointerup', up);
        }}
      />
      <header className="rule-b flex items-baseline justify-between px-3.5 pb-1 pt-2.5">
        <h2>Tally</h2>
        <span className="label">
          asked ⟦ <span className="text-expected">expected ▨</span> <span className="text-found">found ●</span>
        </span>
        <button type="button" className="btn-quiet -mr-1.5" aria-expanded onClick={() => unfold(false)}>
          Fold
        </button>
      </header>
      <ul className="min-h-0 flex-1 overflow-y-auto px-3.5 max-[1099px]:grid max-[1099px]:grid-cols-3 max-[1099px]:gap-x-5 max-sm:!grid-cols-1">
        {verdicts?.map((v) => (
          <Row key={v.id} verdict={v} width={Math.max(90, Math.min(190, tallyWidth - 160))} />
        ))}
        {verdicts?.length === 0 ? (
          <li className="label py-3">The brief asks for nothing yet. Add a limit in the Brief.</li>
        ) : null}
      </ul>
    </aside>
  );
}
