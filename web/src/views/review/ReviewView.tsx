import {
  builtOf,
  foundFor,
  LIMIT_KINDS,
  sayDifference,
  settleAll,
  standings,
  whatChanged,
  type Finding,
  type LimitId,
} from '@gristmill/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { BuiltOtherwise } from '../../parts/BuiltOtherwise.tsx';
import { FitsTold } from './FitsTold.tsx';
import { FigureText, FoundText, QuantityText } from '../../parts/FigureText.tsx';
import { LimitName, Straight } from '../../state/straight.tsx';
import { Later, useGrowing } from '../../parts/Later.tsx';
import { Scale, scaleRange } from '../../parts/Scale.tsx';
import { askedMark, foundSource, settledNote, verdictWord } from '../../parts/words.ts';
import { slug } from '../../state/address.ts';
import { useJoint, useOpen } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { useFindings, useLines } from '../../workers/queries.ts';

const NONE: readonly Finding[] = [];

/** Asked, expected and found side by side for every variant and build, each row on one shared scale. */
export default function ReviewView() {
  const joint = useJoint();
  const units = useUnits();
  const lines = useLines(joint);
  const findings = useFindings().data ?? NONE;
  const rows = joint.brief.limits.map((l) => l.id as LimitId);
  const found = useMemo(() => standings(findings, joint.tests), [findings, joint.tests]);
  const differences = joint.builds.flatMap((b) =>
    rows.flatMap((row) => {
      const f = found(b.id, row);
      const i = joint.variants.findIndex((v) => v.id === b.variantId);
      return f
        ? [
            {
              key: `${b.id}-${row}`,
              build: b.name,
              text: sayDifference(
                row,
                f,
                lines[i]?.figures.find((x) => x.id === row),
                units,
                builtOf(b, joint.variants[i]),
              ),
              slips: f.slips,
            },
          ]
        : [];
    }),
  );
  const limits = useGrowing(joint.brief.limits.length, Math.max(1, Math.floor(40 / joint.variants.length)));
  // Many variants still stand side by side: narrower scales, the verdict beneath.
  const many = joint.variants.length > 2;
  return (
    <div className="px-5 pb-6 pt-3">
      <div className="flex items-baseline justify-between pb-2">
        <h1 className="text-[15px]">Asked, expected, found</h1>
        <button type="button" className="btn-quiet no-print" onClick={() => window.print()}>
          Print this sheet
        </button>
      </div>
      <div className="overflow-x-auto" role="region" aria-label="Asked, expected and found" tabIndex={0}>
        <table className="w-full min-w-[620px]">
          <thead>
            <tr className="border-b border-strong align-bottom">
              <th>limit</th>
              <th>asked</th>
              {joint.variants.map((v) => (
                <th key={v.id} className={many ? 'min-w-[136px]' : 'min-w-[230px]'}>
                  <button
                    type="button"
                    className={`font-semibold text-ink ${v.id === joint.activeVariant ? '' : 'hover:underline'}`}
                    onClick={() => useOpen.getState().openVariant(v.id)}
                  >
                    Variant {v.name}
                  </button>
                  {v.id === joint.activeVariant ? ' open' : ''}
                  <span className="label block font-normal">
                    {joint.builds
                      .filter((b) => b.variantId === v.id)
                      .map((b) => `build ${b.name}`)
                      .join(', ') || 'no build yet'}
                  </span>
                </th>
              ))}
            </tr>
          </thead>
          <Straight>
            <tbody>
              {joint.brief.limits.slice(0, limits).map((l) => {
                const kind = LIMIT_KINDS[l.id];
                const verdicts = lines.map((line) => line?.verdicts.find((v) => v.id === l.id));
                const asked = verdicts.find((v) => v)?.asked ?? NaN;
                const bracket = askedMark(asked, l.sense);
                const all = joint.variants.map((v, i) => ({
                  expected: verdicts[i]?.figure,
                  found: foundFor(joint.builds, found, v, l.id)?.finding,
                }));
                const range = scaleRange([
                  { asked: bracket },
                  ...all.map((a) => ({ expected: a.expected, found: a.found?.found })),
                ]);
                return (
                  <tr key={l.id} className="rule-b" data-review={l.id}>
                    <td className="whitespace-nowrap font-semibold">
                      <LimitName kind={kind} />
                      <span className="label block font-normal">{l.need}</span>
                    </td>
                    <td className="num whitespace-nowrap">
                      {l.sense === 'either' ? (
                        'either'
                      ) : Number.isFinite(asked) ? (
                        <>
                          {l.sense === 'min' ? '≥' : '≤'} <QuantityText value={asked} quantity={kind.quantity} />
                        </>
                      ) : (
                        '—'
                      )}
                    </td>
                    {joint.variants.map((v, i) => {
                      const verdict = verdicts[i];
                      const settled = verdict && settleAll(joint.builds, [verdict], found, v)[0];
                      const word = settled ? verdictWord(settled) : undefined;
                      const note = settled ? settledNote(settled) : '';
                      const own = joint.builds.filter((b) => b.variantId === v.id);
                      return (
                        <td key={v.id}>
                          <div className={many ? '' : 'flex items-center gap-3'}>
                            <Scale
                              width={many ? 112 : 150}
                              range={range}
                              label={`${kind.name}, variant ${v.name}`}
                              asked={bracket}
                              expected={verdict?.figure}
                              found={
                                all[i]?.found?.found
                                  ? {
                                      value: all[i].found.found.value,
                                      U: all[i].found.found.U,
                                      bound: all[i].found.bound,
                                    }
                                  : undefined
                              }
                            />
                            <span
                              className={`whitespace-nowrap text-[12px] ${many ? 'block' : ''} ${word?.tone ?? ''}`}
                            >
                              {word ? `${word.mark} ${word.text}` : '…'}
                              {settled?.by === 'found' ? <span className="text-found">, found</span> : null}
                            </span>
                          </div>
                          {note ? <p className="label first-letter:uppercase">{note}.</p> : null}
                          {verdict?.figure ? (
                            <FigureText
                              className="!text-left"
                              figure={verdict.figure}
                              at={
                                v.id === joint.activeVariant
                                  ? { stageId: undefined, figureId: l.id }
                                  : (undefined as never)
                              }
                            />
                          ) : (
                            <span className="label">{verdict?.says ?? 'nothing expected'}</span>
                          )}
                          {own.map((b) => {
                            const f = found(b.id, l.id);
                            return (
                              <div key={b.id}>
                                {f?.found ? (
                                  <>
                                    <FoundText
                                      className="!text-left"
                                      name={`${kind.name.toLowerCase()}, build ${b.name}`}
                                      found={f.found}
                                      bound={f.bound}
                                      {...foundSource(f)}
                                    />{' '}
                                    <span className="label">{b.name}</span>
                                  </>
                                ) : l.id === 'play' || l.id === 'torque' ? (
                                  <span className="label">{b.name}: not measured</span>
                                ) : null}
                              </div>
                            );
                          })}
                        </td>
                      );
                    })}
                  </tr>
                );
              })}
            </tbody>
          </Straight>
        </table>
      </div>
      <Later>
        <div className="grid grid-cols-2 gap-x-10 gap-y-4 pt-5 max-[1000px]:grid-cols-1">
          <section aria-label="Differences">
            <h2 className="border-b border-strong pb-1">What the bench says of the predictions</h2>
            {differences.length === 0 ? (
              <p className="pt-2">
                Nothing measured yet.{' '}
                <Link className="mend" to={`/joint/${slug(joint.id)}/bench`}>
                  Measure on the bench
                </Link>
                , and found appears beside expected.
              </p>
            ) : null}
            <ul>
              {differences.map((d) => (
                <li key={d.key} className="rule-b py-1.5" data-difference="">
                  <span className="label">Build {d.build}. </span>
                  {d.text}
                  {d.slips.map((s) => (
                    <span key={s.id} className="block text-near">
                      {s.ask}
                    </span>
                  ))}
                </li>
              ))}
            </ul>
          </section>
          <section aria-label="Changes between variants">
            <h2 className="border-b border-strong pb-1">What changed between variants</h2>
            {joint.variants.length < 2 ? (
              <p className="pt-2">
                There is one variant. Duplicate it in the{' '}
                <Link className="mend" to={`/joint/${slug(joint.id)}/line`}>
                  Line
                </Link>
                , change one thing, and compare.
              </p>
            ) : null}
            {joint.variants.slice(1).map((v) => {
              const changes = whatChanged(joint.variants[0]!, v, units);
              return (
                <div key={v.id} className="py-1.5">
                  <p className="font-semibold">
                    {joint.variants[0]!.name} → {v.name}{' '}
                    <span className="label font-normal">
                      {changes.length} change{changes.length === 1 ? '' : 's'}
                    </span>
                  </p>
                  <ul className="num text-[12.5px]">
                    {changes.map((c) => (
                      <li key={c}>{c}</li>
                    ))}
                  </ul>
                </div>
              );
            })}
            {joint.builds.map((b) => (
              <div key={b.id}>
                <BuiltOtherwise build={b} />
                <FitsTold build={b} />
              </div>
            ))}
          </section>
        </div>
      </Later>
      <p className="label pt-4">
        Figures are estimates from the shop’s factors and your readings, not certification. Machines that carry people
        or could fall on them need local codes and a licensed engineer.
      </p>
    </div>
  );
}
