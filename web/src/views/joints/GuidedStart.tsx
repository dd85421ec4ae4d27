import { blankCase, caseLoads, createJoint, factor, PATTERNS, type Joint, type LoadCase } from '@gristmill/core';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { useState } from 'react';
import { QuantityText } from '../../parts/FigureText.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { newId } from '../../state/identifier.ts';
import { note } from '../../state/note.ts';
import { useShelf } from '../../state/shelf.ts';
import { sizeInWorker } from '../../workers/sizing.ts';

/** A short guided start: what it carries, how far out, how fast, and in how many belt stages to begin. */
export function GuidedStart({ onStart, onCancel }: { onStart: (joint: Joint) => void; onCancel: () => void }) {
  const shelf = useShelf();
  const [name, setName] = useState('');
  const [load, setLoad] = useState(0.8);
  const [length, setLength] = useState(0.25);
  const [arm, setArm] = useState(0.2);
  const [speed, setSpeed] = useState((20 * 2 * Math.PI) / 60);
  const [stages, setStages] = useState(2);
  const [pattern, setPattern] = useState<LoadCase['pattern']>('arm');
  const [missing, setMissing] = useState(false);
  const asked: LoadCase =
    pattern === 'arm'
      ? { ...blankCase('x'), load, length, armMass: arm, armCentre: length / 2, speed }
      : blankCase('x', pattern);
  const make = async (): Promise<Joint> => {
    const joint = createJoint(name.trim() || 'New joint', { id: newId(), now: new Date().toISOString() });
    joint.brief.cases = [{ ...asked, id: newId() }];
    const variant = joint.variants[0]!;
    variant.stages = Array.from({ length: stages }, (_, i) => ({ id: `s${i + 1}`, kind: 'belt', params: {} }));
    variant.stages = (await sizeInWorker(joint, [variant]))[0] ?? [];
    variant.follows = true;
    return joint;
  };
  const loads = caseLoads(asked, factor(shelf, 'gravity'));
  return (
    <form
      aria-label="New joint"
      className="my-4 border border-strong bg-panel p-5"
      onSubmit={(e) => {
        e.preventDefault();
        if (!name.trim()) setMissing(true);
        else
          void make().then(onStart, () =>
            note('The stages could not be sized: what computes did not come. Try again when the server answers.'),
          );
      }}
    >
      <h2 className="text-[16px]">What must the joint do?</h2>
      <p className="label pb-3">Everything can be changed later. Any unit will do: 2 lb, 10 in, 62 °/s.</p>
      <div className="grid max-w-[760px] grid-cols-2 gap-x-10 gap-y-2">
        <div className="flex items-baseline justify-between gap-2">
          <label htmlFor="guided-name">Name</label>
          {/* The form appears because a person asked for it; the first field is where they go on. */}
          <input
            id="guided-name"
            autoFocus
            className="min-w-0 border-b border-dotted border-muted bg-transparent"
            maxLength={120}
            value={name}
            aria-invalid={missing && !name.trim() ? true : undefined}
            onChange={(e) => setName(e.target.value)}
          />
        </div>
        <ChoiceField
          label="Load"
          value={pattern}
          options={PATTERNS.map((p) => ({ value: p.id, label: p.name }))}
          onChange={(v) => setPattern(v as LoadCase['pattern'])}
        />
        {pattern === 'arm' ? (
          <>
            <QuantityField
              label="Mass carried"
              quantity="mass"
              value={load}
              min={0}
              max={1e4}
              step={0.1}
              onChange={(v) => setLoad(v)}
            />
            <QuantityField
              label="Axis to load"
              quantity="length"
              value={length}
              min={1e-3}
              max={20}
              step={0.01}
              onChange={(v) => setLength(v)}
            />
            <QuantityField
              label="Mass of the arm itself"
              quantity="mass"
              value={arm}
              min={0}
              max={1e4}
              step={0.05}
              onChange={(v) => setArm(v)}
            />
            <QuantityField
              label="Speed"
              quantity="speed"
              value={speed}
              min={0}
              max={1e3}
              step={0.1}
              onChange={(v) => setSpeed(v)}
            />
          </>
        ) : (
          <p className="label col-span-2">
            {PATTERNS.find((p) => p.id === pattern)!.summary} Its figures are set in the Brief, which opens next.
          </p>
        )}
        <QuantityField
          label="Belt stages to begin with"
          quantity="count"
          whole
          value={stages}
          min={0}
          max={4}
          step={1}
          onChange={(v) => setStages(v)}
        />
      </div>
      {missing && !name.trim() ? (
        <p role="alert" className="pt-2 text-fail">
          The joint has no name. It is how you find it again. Type one.
        </p>
      ) : null}
      <p className="pt-3">
        Asks for <QuantityText value={loads.peak} quantity="torque" /> at the peak, shock included, and{' '}
        <QuantityText value={loads.hold} quantity="torque" /> to hold.
      </p>
      <p className="flex gap-2 pt-3">
        <button type="submit" className="btn">
          Make this joint
        </button>
        <button type="button" className="btn-quiet" onClick={onCancel}>
          Cancel
        </button>
      </p>
    </form>
  );
}
