import {
  compareLines,
  displayUnit,
  fromSi,
  LIMIT_KINDS,
  plainNumber,
  sayBanded,
  type LineReport,
  type Variant,
} from '@gristmill/core';
import { useState } from 'react';
import { FigureText, QuantityText } from '../../parts/FigureText.tsx';
import { LimitName, Straight } from '../../state/straight.tsx';
import { Scale, scaleRange } from '../../parts/Scale.tsx';
import { askedMark, verdictWord } from '../../parts/words.ts';
import { useJoint, useOpen } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { useLines } from '../../workers/queries.ts';
import { sharesOf } from './shares.ts';

const SHADES = ['var(--expected)', 'var(--slack)', 'var(--found)', 'var(--belt)', 'var(--near)', 'var(--muted)'];

/** The parts of one share for several variants as bars on one scale. */
function ShareBars({
  id,
  picked,
}: {
  id: string;
  picked: readonly { variant: Variant; report: LineReport | undefined }[];
}) {
  const units = useUnits();
  const sets = picked.map(({ variant, report }) =>
    report
      ? sharesOf(
          report,
          variant.stages.map((s) => s.kind),
        ).find((s) => s.id === id)
      : undefined,
  );
  const first = sets.find((s) => s);
  if (!first) return null;
  const total = (s: typeof first | undefined) => s?.parts.reduce((m, p) => m + p.value, 0) ?? 0;
  const most = Math.max(...sets.map(total), 1e-30);
  const unit = displayUnit(first.quantity, units);
  const write = (v: number) => plainNumber(fromSi(v, unit), 3);
  return (
    <tr className="rule-b" data-compare-share={id}>
      <td className="whitespace-nowrap">
        {first.name}
        <span className="num block text-[11px] text-muted">{unit.symbol}</span>
      </td>
      {sets.map((s, i) => (
        <td key={picked[i]!.variant.id}>
          {s ? (
            <>
              <span aria-hidden="true" className="flex h-3 w-full max-w-[210px] bg-rule/30">
                {s.parts.map((p, k) => (
                  <span
                    key={p.name}
                    style={{ width: `${(100 * p.value) / most}%`, background: SHADES[k % SHADES.length] }}
                    className="border-r border-panel"
                  />
                ))}
              </span>
              <span className="num block text-[12px]">
                {write(total(s))}
                <span className="text-muted"> = {s.parts.map((p) => `${p.name} ${write(p.value)}`).join(' + ')}</span>
              </span>
            </>
          ) : (
            <span className="label">not known</span>
          )}
        </td>
      ))}
    </tr>
  );
}

const MATTERS = {
  verdict: 'decides a limit',
  apart: 'bands apart',
  within: 'within what is not known',
  none: 'the same',
} as const;

/** Variants side by side on every limit and every share, and which differences matter. */
export default function CompareView() {
  const joint = useJoint();
  const units = useUnits();
  const lines = useLines(joint);
  const [left, setLeft] = useState<readonly string[]>([]);
  const all = joint.variants.map((variant, i) => ({ variant, report: lines[i] }));
  const picked = all.filter((x) => !left.includes(x.variant.id));
  const [a, b] = [picked[0], picked[1]];
  const differences =
    a?.report && b?.report ? compareLines(a.report, b.report).filter((d) => d.matters !== 'none') : [];
  return (
    <div className="pb-4">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-1.5">
        <h1 className="text-[15px]">Variants side by side</h1>
        {joint.variants.map((v) => (
          <label key={v.id} className="flex items-baseline gap-1.5">
            <input
              type="checkbox"
              className="accent-[var(--ink)]"
              checked={!left.includes(v.id)}
              onChange={(e) => setLeft((list) => (e.target.checked ? list.filter((x) => x !== v.id) : [...list, v.id]))}
            />
            {v.name}
          </label>
        ))}
      </div>
      {joint.variants.length < 2 ? (
        <p className="py-2">
          There is one variant. Duplicate it under Stages, change one thing, and it stands here beside the first.
        </p>
      ) : null}
      <div className="overflow-x-auto" role="region" aria-label="Variants side by side" tabIndex={0}>
        <table className="w-full min-w-[560px]">
          <thead>
            <tr className="border-b border-strong align-bottom">
              <th>limit</th>
              {picked.map(({ variant: v, report }) => (
                <th key={v.id} className="min-w-[190px]">
                  <button
                    type="button"
                    className="font-semibold text-ink hover:underline"
                    onClick={() => useOpen.getState().openVariant(v.id)}
                  >
                    Variant {v.name}
                  </button>
                  {v.id === joint.activeVariant ? ' open' : ''}
                  <span className="label block font-normal">
                    {v.motor.name}; {v.stages.length} stage{v.stages.length === 1 ? '' : 's'}
                    {report?.limitedBy ? `; limited by ${report.limitedBy}` : ''}
                  </span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <Straight>
              {joint.brief.limits.map((l) => {
                const kind = LIMIT_KINDS[l.id];
                const verdicts = picked.map((x) => x.report?.verdicts.find((v) => v.id === l.id));
                const mark = askedMark(verdicts.find((v) => v)?.asked ?? NaN, l.sense);
                const range = scaleRange([{ asked: mark }, ...verdicts.map((v) => ({ expected: v?.figure }))]);
                return (
                  <tr key={l.id} className="rule-b" data-compare={l.id}>
                    <td className="whitespace-nowrap">
                      <b className="font-semibold">
                        <LimitName kind={kind} />
                      </b>{' '}
                      <span className="label">{l.need}</span>
                      <span className="num text-[12px] text-muted">
                        {' '}
                        {mark ? (
                          <>
                            {l.sense === 'min' ? '≥' : '≤'} <QuantityText value={mark.value} quantity={kind.quantity} />
                          </>
                        ) : null}
                      </span>
                    </td>
                    {picked.map(({ variant: v }, i) => {
                      const x = verdicts[i];
                      const word = x ? verdictWord(x) : undefined;
                      return (
                        <td key={v.id}>
                          <div className="flex flex-wrap items-center gap-x-3">
                            {l.id === 'noise' ? null : (
                              <Scale
                                width={110}
                                range={range}
                                label={`${kind.name}, variant ${v.name}`}
                                asked={mark}
                                expected={x?.figure}
                              />
                            )}
                            {x?.figure ? (
                              <FigureText
                                figure={x.figure}
                                {...(v.id === joint.activeVariant
                                  ? { at: { stageId: undefined, figureId: l.id } }
                                  : {})}
                              />
                            ) : (
                              <span className="label">{x?.says ?? 'not known'}</span>
                            )}{' '}
                            {word && x?.figure ? (
                              <span className={`whitespace-nowrap text-[12px] ${word.tone}`}>
                                {word.mark} {word.text}
                              </span>
                            ) : null}
                          </div>
                        </td>
                      );
                    })}
                  </tr>
                );
              })}
            </Straight>
            <tr>
              <th colSpan={picked.length + 1} className="pt-3">
                where it comes from, motor first
              </th>
            </tr>
            {['play', 'windUp', 'loss', 'inertia', 'mass', 'money'].map((id) => (
              <ShareBars key={id} id={id} picked={picked} />
            ))}
          </tbody>
        </table>
      </div>
      {a && b ? (
        <section aria-label="Differences that matter" className="pt-4">
          <h2 className="border-b border-strong pb-1">
            {a.variant.name} against {b.variant.name}: what matters
          </h2>
          <table className="w-full">
            <tbody>
              {differences.map((d) => (
                <tr
                  key={d.id}
                  className={`rule-b ${d.matters === 'within' ? 'text-muted' : ''}`}
                  data-matters={d.matters}
                >
                  <td className="whitespace-nowrap">
                    {d.matters === 'verdict' ? '✕ ' : d.matters === 'apart' ? '◆ ' : '○ '}
                    {d.name}
                  </td>
                  <td className="num">{d.a ? sayBanded(d.a, d.a.quantity, units) : '—'}</td>
                  <td className="num">{d.b ? sayBanded(d.b, d.b.quantity, units) : '—'}</td>
                  <td className="label">{MATTERS[d.matters]}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {differences.length === 0 ? (
            <p className="label py-2">The two do not differ in anything compared here.</p>
          ) : null}
        </section>
      ) : null}
    </div>
  );
}
