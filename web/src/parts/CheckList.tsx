import { formatAgainst, type Check, type Figure, type Mend } from '@gristmill/core';
import { useWorking } from '../app/working.ts';
import { useUnits } from '../state/prefs.ts';
import { Said } from './Said.tsx';

const MARK = { holds: '✓', near: '◐', fails: '✕' } as const;
const noted = (c: Check): boolean => c.severity === 'note' && c.state !== 'holds';
const rank = (c: Check) =>
  noted(c) ? 3 : c.state === 'fails' ? (c.severity === 'stop' ? 0 : 1) : c.state === 'near' ? 2 : 4;

/** Checks, the worst first: figure against limit, why, and the nearest mend. */
export function CheckList({
  checks,
  figures,
  stageId,
  onMend,
}: {
  checks: readonly Check[];
  figures: readonly Figure[];
  stageId: string;
  onMend: (mend: Mend) => void;
}) {
  const units = useUnits();
  const open = useWorking((s) => s.open);
  // What is only noted decides nothing: it is told apart and not counted as failing.
  const notes = checks.filter(noted).length;
  const [fails, near] = (['fails', 'near'] as const).map(
    (state) => checks.filter((c) => c.state === state && !noted(c)).length,
  ) as [number, number];
  const summary = [
    fails ? `${fails} fail${fails === 1 ? 's' : ''}` : '',
    near ? `${near} near` : '',
    notes ? `${notes} to note` : '',
    `${checks.length - fails - near - notes} hold`,
  ]
    .filter(Boolean)
    .join(', ');
  const row = (c: Check) => {
    const counts = c.id === 'stock';
    const tone = c.state === 'holds' ? '' : noted(c) ? 'text-muted' : c.state === 'near' ? 'text-near' : 'text-fail';
    return (
      <li key={c.id} data-check={c.id} data-state={c.state} className="rule-b py-1.5 leading-snug">
        <p>
          <span aria-hidden="true" className={tone}>
            {noted(c) ? '○' : MARK[c.state]}
          </span>{' '}
          <span className={c.state === 'holds' ? '' : 'font-semibold'}>{c.name}</span>
          <span className="sr-only">: {noted(c) ? 'to note' : c.state}</span>
          {/* Wider than between words: a name may end in a number. */ '\u2002'}
          {counts ? null : (
            <span className="whitespace-nowrap">
              {(() => {
                const figure = figures.find((f) => f.id === c.of);
                const [is, limit] = formatAgainst(c.figure, c.limit, c.quantity, units);
                const text = (
                  <>
                    <span className={`num ${tone || 'text-expected'}`}>{is}</span>
                    <span className="num text-muted">
                      {' '}
                      {c.sense === 'min' ? '≥' : '≤'} {limit}
                    </span>
                  </>
                );
                return figure ? (
                  <button
                    type="button"
                    className="decoration-dotted underline-offset-3 hover:underline"
                    onClick={() => open({ kind: 'expected', figure, at: { stageId, figureId: figure.id } })}
                  >
                    {text}
                    <span className="sr-only">
                      , open the working of <Said>{figure.name}</Said>
                    </span>
                  </button>
                ) : (
                  text
                );
              })()}
            </span>
          )}
        </p>
        {c.state === 'holds' ? null : (
          <p className="text-[12.5px]">
            <Said>{c.why}</Said>{' '}
            {c.mend ? (
              <button type="button" className="mend" onClick={() => onMend(c.mend!)}>
                <Said>{c.mend.label}</Said>
              </button>
            ) : (
              <Said>{c.advice}</Said>
            )}
          </p>
        )}
      </li>
    );
  };
  const sorted = [...checks].sort((a, b) => rank(a) - rank(b));
  const passed = sorted.filter((c) => c.state === 'holds');
  const decides = sorted.filter((c) => c.state !== 'holds');
  return (
    <section aria-label="Checks">
      <div className="rule-b flex justify-between pb-1">
        <h2>Checks</h2>
        <span className="label">{summary}</span>
      </div>
      <ul>{decides.map(row)}</ul>
      {passed.length ? (
        <details className="py-1">
          <summary className="cursor-pointer">
            <span aria-hidden="true">✓</span> {passed.length} {passed.length === 1 ? 'check holds' : 'checks hold'}
          </summary>
          <ul>{passed.map(row)}</ul>
        </details>
      ) : null}
    </section>
  );
}
