import {
  formatQuantity,
  LIMIT_KINDS,
  lineInputs,
  marginOf,
  wrongInput,
  type LineInput,
  type LineReport,
  type Problem,
  type Shelf,
  type ShopEdits,
  type Variant,
} from '@gristmill/core';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { FigureText } from '../../parts/FigureText.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { verdictWord } from '../../parts/words.ts';
import { newId } from '../../state/identifier.ts';
import { useJoint, useOpen, useVariant } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { LimitName, Straight, useWritten } from '../../state/straight.tsx';
import { useEdits, useShelf } from '../../state/shelf.ts';
import type { LineOf } from '../../workers/api.ts';
import { useLine, useTrials } from '../../workers/queries.ts';
import { takeMotor } from './MotorPanel.tsx';
import { Said } from '../../parts/Said.tsx';

type Idea = { readonly id: string } & ({ readonly motor: string } | { readonly input: string; readonly value: number });
const MOST = 4;

/** What a trial computes with: one thing changed, everything else as it is. */
function trialOf(
  idea: Idea,
  joint: ReturnType<typeof useJoint>,
  variant: Variant,
  inputs: readonly LineInput[],
  shelf: Shelf,
  edits: ShopEdits,
): LineOf | undefined {
  if ('motor' in idea) {
    const chosen = shelf.motors.find((m) => m.id === idea.motor);
    if (!chosen) return undefined;
    const next = { ...variant, driver: { ...variant.driver } };
    takeMotor(next, chosen, shelf);
    return { brief: joint.brief, variant: next, edits };
  }
  const input = inputs.find((x) => x.id === idea.input);
  if (!input) return undefined;
  if (idea.input.startsWith('factor/')) {
    const id = idea.input.slice(7);
    return {
      brief: joint.brief,
      variant,
      edits: {
        ...edits,
        factors: { ...edits.factors, [id]: { value: idea.value, low: idea.value, high: idea.value } },
      },
    };
  }
  const s = input.with(idea.value);
  return { brief: s.joint.brief, variant: s.variant, edits };
}

const percent = (x: number): string =>
  Number.isFinite(x)
    ? `${Math.abs(x) > 9.99 ? '>' : ''}${x < 0 ? '−' : '+'}${Math.min(999, Math.abs(x) * 100).toFixed(0)} %`
    : '—';

function Cell({ id, report, now }: { id: string; report: LineReport | undefined; now: LineReport | undefined }) {
  const v = report?.verdicts.find((x) => x.id === id);
  if (!report) return <span className="label">working it out…</span>;
  if (report.problem)
    return (
      <span className="text-fail">
        ✕ <Said>{report.problem.what}</Said>
      </span>
    );
  if (!v) return null;
  const word = verdictWord(v);
  if (!v.figure) return <span className={v.says ? '' : 'label'}>{v.says ?? '—'}</span>;
  const margin = marginOf(v.asked, v.sense, v.figure.value);
  const before = now?.verdicts.find((x) => x.id === id);
  const was = before?.figure ? marginOf(before.asked, before.sense, before.figure.value) : NaN;
  const change = margin - was;
  return (
    <span className="block whitespace-nowrap">
      <FigureText
        figure={v.figure}
        {...(report === now ? { at: { stageId: undefined, figureId: v.figure.id } } : {})}
        band={false}
      />
      <span className={`num ml-2 text-[12px] ${word.tone}`}>
        {word.mark} {percent(margin)}
      </span>
      {report !== now && Math.abs(change) > 5e-4 ? (
        <span className="num ml-1.5 text-[12px] text-muted" title="change of the margin">
          ({change > 0 ? '↑' : '↓'} {Math.abs(change * 100).toFixed(change > 0.1 ? 0 : 1)})
        </span>
      ) : null}
    </span>
  );
}

/** A limit by its name, and what is asked of it, as the output is told. */
function Asked({ verdict: v }: { verdict: LineReport['verdicts'][number] }) {
  const kind = LIMIT_KINDS[v.id];
  const write = useWritten();
  return (
    <>
      <td className="whitespace-nowrap font-semibold">
        <LimitName kind={kind} />
        <span className="label font-normal"> {v.need}</span>
      </td>
      <td className="num whitespace-nowrap">
        {v.sense === 'either'
          ? 'either'
          : Number.isFinite(v.asked)
            ? `${v.sense === 'min' ? '≥' : '≤'} ${write(v.asked, kind.quantity, 4)}`
            : '—'}
      </td>
    </>
  );
}

/** Change one thing, and see every limit's margin before and after. */
export default function WhatIfView() {
  const joint = useJoint();
  const variant = useVariant();
  const shelf = useShelf();
  const edits = useEdits();
  const units = useUnits();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const { report } = useLine();
  const [ideas, setIdeas] = useState<readonly Idea[]>([]);
  const [chosen, setChosen] = useState('driver/supplyVoltage');
  const inputs = useMemo(
    () => lineInputs({ joint, variant, shelf }, report?.reads.factors),
    [joint, variant, shelf, report],
  );
  const input = inputs.find((x) => x.id === chosen) ?? inputs[0];
  const [value, setValue] = useState<{ id: string; value: number } | undefined>();
  const asked = input
    ? value?.id === input.id
      ? value.value
      : input.whole
        ? input.value + 1
        : input.value === 0
          ? 1
          : Number((input.value * 1.2).toPrecision(6))
    : 0;
  const live = ideas
    .map((idea) => ({ idea, trial: trialOf(idea, joint, variant, inputs, shelf, edits) }))
    .filter((x): x is { idea: Idea; trial: LineOf } => x.trial !== undefined);
  const trials = useTrials(live.map((x) => x.trial));
  const name = (idea: Idea): string => {
    if ('motor' in idea) return `Motor: ${shelf.motors.find((m) => m.id === idea.motor)?.name ?? ''}`;
    const x = inputs.find((i) => i.id === idea.input)!;
    return `${x.group}, ${x.label}: ${formatQuantity(x.value, x.quantity, units, 4)} → ${formatQuantity(idea.value, x.quantity, units, 4)}`;
  };
  const [problem, setProblem] = useState<Problem | undefined>();
  const add = (idea: Idea) => setIdeas((list) => [...list, idea].slice(-MOST));
  const tryIt = (x: LineInput) => {
    const wrong = wrongInput(x.with(asked), x.id);
    setProblem(wrong);
    if (!wrong) add({ id: newId(), input: x.id, value: asked });
  };
  return (
    <div className="pb-3">
      <h1 className="pb-1 text-[15px]">
        Change one thing <span className="label font-normal">and see what every limit says to it</span>
      </h1>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2 border-b border-rule pb-2">
        <div className="w-[300px]">
          <ChoiceField
            label="What if"
            value={input?.id ?? ''}
            options={inputs.map((x) => ({ value: x.id, label: `${x.group}: ${x.label}` }))}
            onChange={(v) => setChosen(String(v))}
          />
        </div>
        {input ? (
          <div className="w-[215px]">
            <QuantityField
              key={input.id}
              label={`were (now ${formatQuantity(input.value, input.quantity, units, 4)})`}
              quantity={input.quantity}
              value={asked}
              step={Math.max(Math.abs(input.value) / 20, input.whole ? 1 : 1e-9)}
              {...(input.whole ? { whole: true } : {})}
              onChange={(v) => wrongInput(input.with(v), input.id) ?? setValue({ id: input.id, value: v })}
            />
          </div>
        ) : null}
        <button type="button" className="btn" disabled={!input} onClick={() => input && tryIt(input)}>
          Try it
        </button>
        <div className="w-[250px]">
          <ChoiceField
            label="or the motor"
            value=""
            options={[
              { value: '', label: 'choose…' },
              ...shelf.motors.filter((m) => m.id !== variant.motor.id).map((m) => ({ value: m.id, label: m.name })),
            ]}
            onChange={(v) => v && add({ id: newId(), motor: String(v) })}
          />
        </div>
      </div>
      {problem ? (
        <div className="py-2">
          <ProblemNote problem={problem} />
        </div>
      ) : null}
      <div className="overflow-x-auto" role="region" aria-label="What if" tabIndex={0}>
        <table className="w-full min-w-[560px]">
          <thead>
            <tr className="border-b border-strong align-bottom">
              <th>limit</th>
              <th>asked</th>
              <th>now, variant {variant.name}</th>
              {live.map(({ idea, trial }) => (
                <th key={idea.id} className="min-w-[170px] max-w-[230px]">
                  <span className="block font-semibold text-ink">{name(idea)}</span>
                  <button
                    type="button"
                    className="mend mr-3"
                    disabled={readOnly || ('input' in idea && idea.input.startsWith('factor/'))}
                    title={
                      'input' in idea && idea.input.startsWith('factor/')
                        ? 'Factors are changed in the shop.'
                        : undefined
                    }
                    onClick={() => {
                      edit(`What if: ${name(idea)}`, (d) => {
                        d.brief = trial.brief;
                        const own = d.variants.find((v) => v.id === variant.id)!;
                        Object.assign(own, {
                          motor: trial.variant.motor,
                          driver: trial.variant.driver,
                          stages: trial.variant.stages,
                        });
                      });
                      setIdeas((list) => list.filter((x) => x.id !== idea.id));
                      toast('Done. Undo takes it back.');
                    }}
                  >
                    Do it
                  </button>
                  <button
                    type="button"
                    className="btn-quiet !px-0"
                    onClick={() => setIdeas((list) => list.filter((x) => x.id !== idea.id))}
                  >
                    Drop
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <Straight>
              {(report?.verdicts ?? []).map((v) => (
                <tr key={v.id} className="rule-b" data-what-if={v.id}>
                  <Asked verdict={v} />
                  <td>
                    <Cell id={v.id} report={report} now={report} />
                  </td>
                  {live.map(({ idea }, i) => (
                    <td key={idea.id}>
                      <Cell id={v.id} report={trials[i]} now={report} />
                    </td>
                  ))}
                </tr>
              ))}
            </Straight>
          </tbody>
        </table>
      </div>
      {live.length === 0 ? (
        <p className="pt-3">
          Choose one thing to change and try it: a column appears with every limit’s margin, before and after. Nothing
          is changed until you say <b>Do it</b>.
        </p>
      ) : (
        <p className="label pt-2">
          Per cent: how far within (+) or beyond (−) the limit. In brackets: points gained or lost.
        </p>
      )}
    </div>
  );
}
