import {
  blankCase,
  factor,
  loadPattern,
  PATTERNS,
  readCase,
  rescaleLimits,
  travelOf,
  type AnyPattern,
  type LoadCase,
  type Problem,
} from '@gristmill/core';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { useActions, type Action } from '../../app/actions.ts';
import { ChoiceField, TextField } from '../../parts/ChoiceField.tsx';
import { FigureText, QuantityText } from '../../parts/FigureText.tsx';
import { Later } from '../../parts/Later.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { Section } from '../../parts/Section.tsx';
import { newId } from '../../state/identifier.ts';
import { Straight } from '../../state/straight.tsx';
import { editVariant, useJoint, useOpen, useVariant } from '../../state/open.ts';
import { useShelf } from '../../state/shelf.ts';
import { useLine } from '../../workers/queries.ts';
import { CaseFields, CaseSketch, hasFields, type Change } from './case-parts.tsx';
import { CasePlot } from './CasePlot.tsx';
import { Limits } from './Limits.tsx';
import { Panes } from '../../parts/Panes.tsx';

const DRAG: Readonly<Record<LoadCase['pattern'], string>> = {
  arm: 'drag the load, the centre or the ends of the range',
  leg: 'drag the ground or the foot',
  turning: 'drag the end of the move',
  straight: 'drag the slope',
  points: 'edit, paste or read a file',
};

/** The cases of the brief as tabs, and what is done with them. */
function CaseTabs({ at, onOpen }: { at: number; onOpen: (i: number) => void }) {
  const joint = useJoint();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const { cases } = joint.brief;
  const add = (pattern: LoadCase['pattern']) => {
    const made = blankCase(newId(), pattern) as LoadCase;
    const taken = new Set(cases.map((x) => x.name));
    let n = 2;
    const name = taken.has(made.name)
      ? (() => {
          while (taken.has(`${made.name} ${n}`)) n++;
          return `${made.name} ${n}`;
        })()
      : made.name;
    edit(`Add load case ${name}`, (d) => void d.brief.cases.push({ ...made, name }));
    onOpen(cases.length);
  };
  return (
    <div className="flex items-baseline gap-x-4 border-b border-rule">
      <div className="flex min-w-0 flex-wrap items-baseline gap-x-4" role="tablist" aria-label="Load cases">
        {cases.map((x, i) => (
          <button
            key={x.id}
            type="button"
            role="tab"
            aria-selected={i === at}
            className={`max-w-[190px] truncate pb-1 ${i === at ? 'border-b-2 border-ink font-semibold' : 'text-muted hover:text-ink'}`}
            onClick={() => onOpen(i)}
          >
            {x.name || loadPattern(x.pattern).name}
          </button>
        ))}
      </div>
      <span className="ml-auto shrink-0">
        <ChoiceField
          label="Add a load case"
          hideLabel
          value=""
          disabled={readOnly || cases.length >= 20}
          options={[{ value: '', label: 'Add load case…' }, ...PATTERNS.map((p) => ({ value: p.id, label: p.name }))]}
          onChange={(v) => v && add(v as LoadCase['pattern'])}
        />
      </span>
    </div>
  );
}

/** What the joint must do: each load case as a sketch, a plot and figures, and the limits. */
export default function BriefView() {
  const joint = useJoint();
  const variant = useVariant();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const shelf = useShelf();
  const { report } = useLine();
  const [chosen, setChosen] = useState(0);
  const at = Math.min(chosen, joint.brief.cases.length - 1);
  const c = joint.brief.cases[at]!;
  const g = factor(shelf, 'gravity');
  const pattern: AnyPattern = loadPattern(c.pattern);
  const change: Change = (part, what) => {
    const tried = readCase({ ...c, ...part });
    if (!tried.ok) return tried.problem;
    edit(what, (d) => {
      const was = travelOf(d.brief);
      Object.assign(d.brief.cases[at]!, part);
      // Limits along a straight axis stay what they are there.
      const now = travelOf(d.brief);
      if (was !== undefined && now !== undefined && was !== now)
        d.brief.limits = rescaleLimits(d.brief.limits, was, now);
    });
    return undefined;
  };
  const [refused, setRefused] = useState<Problem | undefined>();
  const drag: Change = (part, what) => {
    const problem = change(part, what);
    setRefused(problem);
    return problem;
  };
  const figures = useMemo(() => pattern.figures(c, g), [pattern, c, g]);
  const actions = useMemo<Action[]>(
    () =>
      PATTERNS.map((p) => ({
        id: `add-${p.id}`,
        name: `Add load case: ${p.name.toLowerCase()}`,
        group: 'Brief',
        run: () => useOpen.getState().edit(`Add load case ${p.name}`, (d) => void d.brief.cases.push(p.blank(newId()))),
      })),
    [],
  );
  useActions('brief', actions);
  const short = report?.verdicts.find((v) => v.id === 'torque' && v.state === 'fails');
  const of = { c, onChange: change, disabled: readOnly };
  return (
    <Panes
      id="brief"
      name="the limits"
      width={292}
      plain="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_292px]"
      pane={
        <div
          className="min-h-0 overflow-y-auto  bg-panel px-4 pt-3"
          role="region"
          aria-label="Load case and limits"
          tabIndex={0}
        >
          <Section title="Load case">
            <TextField
              label="Name"
              value={c.name}
              onChange={(name) => edit('Name of the load case', (d) => void (d.brief.cases[at]!.name = name))}
              className="text-right"
            />
            <ChoiceField
              label="Pattern"
              value={c.pattern}
              disabled={readOnly}
              options={PATTERNS.map((p) => ({ value: p.id, label: p.name }))}
              onChange={(v) =>
                v !== c.pattern &&
                edit(
                  `Pattern: ${loadPattern(v as LoadCase['pattern']).name}`,
                  (d) =>
                    void (d.brief.cases[at] = { ...loadPattern(v as LoadCase['pattern']).blank(c.id), name: c.name }),
                )
              }
            />
            <CaseFields {...of} group="Load" />
            <p className="flex gap-2">
              <button
                type="button"
                className="btn-quiet"
                disabled={readOnly || joint.brief.cases.length >= 20}
                onClick={() => {
                  edit(
                    `Duplicate load case ${c.name}`,
                    (d) =>
                      void d.brief.cases.splice(at + 1, 0, {
                        ...(JSON.parse(JSON.stringify(c)) as LoadCase),
                        id: newId(),
                        name: `${c.name}, copy`.slice(0, 120),
                      }),
                  );
                  setChosen(at + 1);
                }}
              >
                Duplicate
              </button>
              <button
                type="button"
                className="btn-quiet"
                disabled={readOnly || joint.brief.cases.length < 2}
                onClick={() => edit(`Remove load case ${c.name}`, (d) => void d.brief.cases.splice(at, 1))}
              >
                Remove this case
              </button>
            </p>
          </Section>
          <Later>
            {hasFields(c, 'Move') ? (
              <Section title="Move">
                <CaseFields {...of} group="Move" />
              </Section>
            ) : null}
          </Later>
          <Later>
            <Straight>
              <Limits />
            </Straight>
            <Section title="Line" aside={variant.name}>
              <label className="flex items-baseline gap-2">
                <input
                  type="checkbox"
                  className="accent-[var(--ink)]"
                  checked={variant.follows}
                  onChange={(e) =>
                    editVariant(
                      e.target.checked ? 'Re-size with the brief' : 'Hold the stages',
                      (v) => void (v.follows = e.target.checked),
                    )
                  }
                />
                <span>Re-size the stages with the brief</span>
              </label>
              <p className="label">
                On, a change here chooses ratio, teeth, width and tension anew. Off, the stages stay as they are.
              </p>
            </Section>
          </Later>
        </div>
      }
    >
      <div className="flex min-h-0 min-w-0 flex-col px-5 pt-2.5">
        <CaseTabs at={at} onOpen={setChosen} />
        <div className="flex items-baseline justify-between pt-1.5">
          <h1 className="text-[15px]" title={pattern.summary}>
            {pattern.name} <span className="label font-normal">{DRAG[c.pattern]}</span>
          </h1>
        </div>
        <div className={`min-h-[170px] ${c.pattern === 'leg' ? 'flex-[1.7]' : 'flex-[1.15]'}`}>
          <CaseSketch c={c} g={g} onChange={drag} onEdit={change} disabled={readOnly} />
        </div>
        {refused ? (
          <div className="py-1">
            <ProblemNote problem={refused} />
          </div>
        ) : null}
        <div className="flex min-h-[164px] flex-1 flex-col">
          <Later>
            <Straight>
              <CasePlot c={c} g={g} />
            </Straight>
          </Later>
        </div>
        <div
          className="flex flex-wrap gap-x-4 gap-y-0.5 border-t border-rule py-1.5 text-[12.5px]"
          role="group"
          aria-label="What the load asks"
        >
          <Straight>
            {figures.map((f) => (
              <span key={f.id}>
                {f.name}
                <FigureText figure={f} className="ml-1.5" />
              </span>
            ))}
          </Straight>
        </div>
        {c.pattern === 'leg' ? (
          <p className="caution no-print mb-1.5 !py-0.5">
            What stands can fall: tether it, keep clear before power. What carries people needs local codes and a
            licensed engineer.
          </p>
        ) : null}
        {short ? (
          <Straight>
            <p className="border-t border-rule py-1.5 text-fail">
              ✕ Variant {variant.name} lifts{' '}
              <FigureText figure={short.figure!} at={{ stageId: undefined, figureId: 'torque' }} /> of{' '}
              <QuantityText value={short.asked} quantity="torque" />.{' '}
              <button
                type="button"
                className="mend"
                onClick={() => (
                  editVariant('Re-size with the brief', (v) => void (v.follows = true)),
                  toast('Stages re-sized for this brief; they follow it from now on.')
                )}
              >
                Re-size its stages
              </button>
            </p>
          </Straight>
        ) : null}
      </div>
    </Panes>
  );
}
