import {
  alongAxis,
  atOutput,
  formatAgainst,
  mended,
  travelOf,
  type Check,
  type Figure,
  type FigureAddress,
  type LineReport,
  type Mend,
  type Variant,
} from '@gristmill/core';
import { useWorking } from '../../app/working.ts';
import { editVariant, useJoint } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { shelfNow } from '../../state/shelf.ts';
import { Said } from '../../parts/Said.tsx';

/** Makes the one change a line's check proposes. */
export function mendLine(mend: Mend): void {
  editVariant(mend.label, (draft) => {
    const next = mended(draft as Variant, mend, shelfNow());
    for (const key of ['motor', 'driver', 'mount', 'output', 'housing', 'stages'] as const)
      if (next[key] !== draft[key]) Object.assign(draft, { [key]: next[key] });
  });
}

/** A check that does not hold: figure, limit, why, and what mends it. */
export function CheckLine({
  c,
  figure,
  at,
  onMend,
}: {
  c: Check;
  figure: Figure | undefined;
  at?: FigureAddress;
  onMend: (mend: Mend) => void;
}) {
  const units = useUnits();
  const open = useWorking((s) => s.open);
  const tone = c.state === 'fails' ? 'text-fail' : 'text-near';
  const travel = travelOf(useJoint().brief);
  const told = alongAxis({ quantity: c.quantity, value: c.figure, high: c.limit }, atOutput(c.id) ? travel : undefined);
  const text = formatAgainst(told.value, told.high, told.quantity, units).join(c.sense === 'min' ? ' ≥ ' : ' ≤ ');
  return (
    <li data-check={c.id} data-state={c.state} className="rule-b py-1 leading-snug">
      <span aria-hidden="true" className={tone}>
        {c.state === 'fails' ? '✕' : '◐'}
      </span>{' '}
      <b className="font-semibold">{c.name}</b>
      <span className="sr-only">: {c.state}</span>{' '}
      {figure ? (
        <button
          type="button"
          className={`num mr-1 decoration-dotted underline-offset-3 hover:underline ${tone}`}
          onClick={() => open({ kind: 'expected', figure, ...(at && { at }) })}
        >
          {text}
          <span className="sr-only">, open the working of {figure.name}</span>
        </button>
      ) : (
        <span className={`num mr-1 ${tone}`}>{text}</span>
      )}{' '}
      <span className="text-[12.5px]">
        <Said>{c.why}</Said>{' '}
        {c.mend ? (
          <button type="button" className="mend" onClick={() => onMend(c.mend!)}>
            <Said>{c.mend.label}</Said>
          </button>
        ) : (
          <Said>{c.advice}</Said>
        )}
      </span>
    </li>
  );
}

function Line({ c, report }: { c: Check; report: LineReport }) {
  const figure = report.figures.find((f) => f.id === c.of);
  return (
    <CheckLine
      c={c}
      figure={figure}
      {...(figure && { at: { stageId: undefined, figureId: figure.id } })}
      onMend={mendLine}
    />
  );
}

/** What decides whether the line works: what fails or is near in full, what holds in one line. */
export function LineChecks({ report }: { report: LineReport }) {
  const bad = report.checks
    .filter((c) => c.state !== 'holds')
    .sort((a, b) => (a.state === 'fails' ? 0 : 1) - (b.state === 'fails' ? 0 : 1));
  const good = report.checks.filter((c) => c.state === 'holds');
  const groups = [...new Set(good.flatMap((c) => c.group ?? []))];
  const held = [
    ...good.filter((c) => !c.group).map((c) => c.name[0]!.toLowerCase() + c.name.slice(1)),
    ...groups.map((g) => `${g} (${good.filter((c) => c.group === g).length} checks)`),
  ];
  if (report.checks.length === 0) return null;
  return (
    <section aria-label="Checks of the line" className="border-t border-rule pt-1">
      <ul>
        {bad.map((c) => (
          <Line key={c.id} c={c} report={report} />
        ))}
      </ul>
      {good.length ? (
        <p className="label py-1" data-holds="">
          ✓ {held.join(' · ')}
        </p>
      ) : null}
    </section>
  );
}
