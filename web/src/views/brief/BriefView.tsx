import { armGravity, armInertia, askedValue, blankLimit, factor, LIMIT_IDS, LIMIT_KINDS, type ArmCase, type LimitId } from '@gristmill/core';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { ChoiceField, TextField } from '../../parts/ChoiceField.tsx';
import { FigureText, QuantityText } from '../../parts/FigureText.tsx';
import { LazyPlot } from '../../parts/LazyPlot.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Section } from '../../parts/Section.tsx';
import { editVariant, useJoint, useOpen, useVariant } from '../../state/open.ts';
import { useShelf } from '../../state/shop.ts';
import { useLine } from '../../workers/queries.ts';
import { ArmSketch } from './ArmSketch.tsx';
import { caseFigures } from './case-figures.ts';

const STEPS = 121;
const FIELDS = [
  { key: 'load', label: 'Mass carried', quantity: 'mass', step: 0.1, min: 0, max: 1e4, help: 'At the end of the arm.' },
  { key: 'length', label: 'Axis to load', quantity: 'length', step: 0.005, min: 1e-3, max: 20, help: 'Centre of the load.' },
  { key: 'armMass', label: 'Mass of the arm', quantity: 'mass', step: 0.05, min: 0, max: 1e4, help: 'Often forgotten: it lifts itself.' },
  { key: 'armCentre', label: 'Axis to its centre', quantity: 'length', step: 0.005, min: 0, max: 20, help: 'Centre of mass of the arm.' },
  { key: 'angleFrom', label: 'Lowest angle', quantity: 'angle', step: Math.PI / 180, min: -2 * Math.PI, max: 2 * Math.PI, help: 'From the horizontal, up positive.' },
  { key: 'angleTo', label: 'Highest angle', quantity: 'angle', step: Math.PI / 180, min: -2 * Math.PI, max: 2 * Math.PI, help: 'From the horizontal, up positive.' },
  { key: 'speed', label: 'Speed', quantity: 'speed', step: Math.PI / 30, min: 0, max: 1e3, help: 'Reached while moving.' },
  { key: 'acceleration', label: 'Acceleration', quantity: 'acceleration', step: 1, min: 0, max: 1e5, help: 'While speeding up and slowing down.' },
  { key: 'rest', label: 'Rest at each end', quantity: 'time', step: 0.5, min: 0, max: 1e6, help: 'Holding counts towards heat.' },
  { key: 'dynamicFactor', label: 'Shock factor', quantity: 'ratio', step: 0.05, min: 1, max: 20, help: 'Peak torque is multiplied by it: 1.0 smooth, 1.3 usual, 2 and more for jolts.' },
] as const;

function Limits() {
  const joint = useJoint();
  const edit = useOpen((s) => s.edit);
  const demand = useLine().report?.demand;
  const missing = LIMIT_IDS.filter((id) => !joint.brief.limits.some((l) => l.id === id));
  return (
    <Section title="Limits" aside="must or wish">
      {joint.brief.limits.map((l, i) => {
        const kind = LIMIT_KINDS[l.id];
        const follows = l.value === null;
        const canFollow = l.id === 'torque' || l.id === 'speed';
        const asked = demand ? askedValue(l, demand) : (l.value ?? 0);
        return (
          <div key={l.id} className="rule-b grid grid-cols-[minmax(0,1fr)_10px_80px_58px_18px] items-baseline gap-x-1 pb-1" data-limit-row={l.id}>
            <span title={kind.help} className="truncate text-[12.5px]">{kind.name}</span>
            <span className="num text-muted">{l.sense === 'min' ? '≥' : '≤'}</span>
            {follows ? (
              <button type="button" className="num border-b border-dotted border-muted text-right" title="Follows the load cases. Press to set a value of your own." onClick={() => edit(`Limit: ${kind.name}`, (d) => void (d.brief.limits[i]!.value = asked))}>
                <QuantityText value={asked} quantity={kind.quantity} />
              </button>
            ) : (
              <QuantityField label={`${kind.name} limit`} hideLabel quantity={kind.quantity} value={asked} min={0} max={1e9} step={Math.max(Math.abs(asked) / 20, 1e-6)} onChange={(v) => edit(`Limit: ${kind.name}`, (d) => void (d.brief.limits[i]!.value = v))} />
            )}
            <ChoiceField label={`${kind.name}: must or wish`} hideLabel value={l.need} options={[{ value: 'must', label: 'must' }, { value: 'wish', label: 'wish' }]} onChange={(v) => edit(`${kind.name}: ${v}`, (d) => void (d.brief.limits[i]!.need = v as 'must' | 'wish'))} />
            <button type="button" className="btn-quiet -ml-1.5 px-1" aria-label={`Remove the limit ${kind.name}`} onClick={() => edit(`Remove limit ${kind.name}`, (d) => void d.brief.limits.splice(i, 1))}>✕</button>
            {canFollow ? (
              <span className="label col-span-5">
                {follows ? 'follows the load cases' : <button type="button" className="mend" onClick={() => edit(`Limit: ${kind.name}`, (d) => void (d.brief.limits[i]!.value = null))}>Follow the load cases</button>}
              </span>
            ) : null}
          </div>
        );
      })}
      {missing.length ? (
        <ChoiceField label="Add limit" value="" options={[{ value: '', label: 'choose…' }, ...missing.map((id) => ({ value: id, label: LIMIT_KINDS[id].name }))]} onChange={(v) => v && edit(`Add limit ${LIMIT_KINDS[v as LimitId].name}`, (d) => void d.brief.limits.push(blankLimit(v as LimitId)))} />
      ) : null}
    </Section>
  );
}

/** What the joint must do: the load as a sketch, its torque over the angle, and the limits. */
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
  const change = (part: Partial<ArmCase>, what: string) => edit(`${what}`, (d) => void Object.assign(d.brief.cases[at]!, part));
  const figures = useMemo(() => caseFigures(c, g), [c, g]);
  const curve = useMemo(() => {
    const from = Math.min(c.angleFrom, c.angleTo);
    const range = Math.abs(c.angleTo - c.angleFrom);
    const x = Float64Array.from({ length: STEPS }, (_, i) => from + (range * i) / (STEPS - 1));
    const gravity = x.map((a) => armGravity(c, a, g));
    const j = armInertia(c) * c.acceleration;
    const up = gravity.map((t) => t + j);
    const down = gravity.map((t) => t - j);
    return { x, gravity, up, down, peak: gravity.map((t) => Math.max(Math.abs(t + j), Math.abs(t - j)) * c.dynamicFactor) };
  }, [c, g]);
  const short = report?.verdicts.find((v) => v.id === 'torque' && v.state === 'fails');
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_292px]">
      <div className="flex min-h-0 min-w-0 flex-col px-5 pt-3">
        <div className="flex items-baseline justify-between">
          <h1 className="text-[15px]">Arm against gravity <span className="label font-normal">drag the load, the centre or the ends of the range</span></h1>
        </div>
        <div className="min-h-[180px] flex-[1.15]">
          <ArmSketch c={c} onChange={change} disabled={readOnly} />
        </div>
        <div className="flex items-baseline justify-between pt-1">
          <h2>Torque over the angle</h2>
          <p className="label">
            <span className="text-ink">— gravity</span> · <span className="text-found">-- with acceleration</span> · <span className="text-expected">— peak, with shock</span>
          </p>
        </div>
        <div className="min-h-[170px] flex-1">
          <LazyPlot
            name="Torque at the joint over the arm’s angle" x="angle" y="torque" xName="angle from the horizontal" yName="torque"
            series={[
              { key: 'g', name: 'gravity', x: curve.x, y: curve.gravity, colour: 'var(--ink)' },
              { key: 'u', name: 'with acceleration', x: curve.x, y: curve.up, colour: 'var(--found)', dash: '5 4', width: 1.3 },
              { key: 'd', name: 'with deceleration', x: curve.x, y: curve.down, colour: 'var(--found)', dash: '2 3', width: 1.3 },
              { key: 'p', name: 'peak', x: curve.x, y: curve.peak, colour: 'var(--expected)', width: 2.2 },
            ]}
          />
        </div>
        <div className="flex flex-wrap gap-x-6 gap-y-1 border-t border-rule py-2" aria-label="What the load asks">
          {figures.map((f) => (
            <span key={f.id}>{f.name}<FigureText figure={f} className="ml-1.5" /></span>
          ))}
        </div>
        {short ? (
          <p className="border-t border-rule py-1.5 text-fail">
            ✕ Variant {variant.name} lifts <FigureText figure={short.figure!} at={{ stageId: undefined, figureId: 'torque' }} /> of <QuantityText value={short.asked} quantity="torque" />.{' '}
            <button type="button" className="mend" onClick={() => (editVariant('Re-size with the brief', (v) => void (v.follows = true)), toast('Stages re-sized for this brief; they follow it from now on.'))}>Re-size its stages</button>
          </p>
        ) : null}
      </div>
      <div className="min-h-0 overflow-y-auto border-l border-rule bg-panel px-4 pt-3">
        <Section title="Load case">
          {joint.brief.cases.length > 1 ? <ChoiceField label="Shown" value={at} options={joint.brief.cases.map((x, i) => ({ value: i, label: x.name }))} onChange={(v) => setChosen(Number(v))} /> : null}
          <TextField label="Name" value={c.name} onChange={(name) => change({ name }, 'Name of the load case')} className="text-right" />
          {FIELDS.map((f) => (
            <QuantityField key={f.key} label={f.label} quantity={f.quantity} help={f.help} step={f.step} min={f.min} max={f.max} value={c[f.key]} disabled={readOnly} onChange={(v) => change({ [f.key]: v }, f.label)} />
          ))}
        </Section>
        <Section title="Line" aside={variant.name}>
          <label className="flex items-baseline gap-2">
            <input type="checkbox" className="accent-[var(--ink)]" checked={variant.follows} onChange={(e) => editVariant(e.target.checked ? 'Re-size with the brief' : 'Hold the stages', (v) => void (v.follows = e.target.checked))} />
            <span>Re-size the stages with the brief</span>
          </label>
          <p className="label">On, a change here chooses ratio, teeth, width and tension anew. Off, the stages stay as they are.</p>
        </Section>
        <Limits />
      </div>
    </div>
  );
}
