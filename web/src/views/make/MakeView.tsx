import {
  builtAsNow,
  designOf,
  formatQuantity,
  sayProblem,
  stageKind,
  writeDxf,
  writeSvg,
  type Part,
  type StageRecord,
} from '@gristmill/core';
import { partKey } from '@gristmill/core/fit/making-of';
import { isPlain, type Correction } from '@gristmill/core/solid/correction';
import { Suspense, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { download, fileName } from '../../app/download.ts';
import { view } from '../../app/view.tsx';
import { ChoiceField, TextField } from '../../parts/ChoiceField.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Section } from '../../parts/Section.tsx';
import { slug } from '../../state/address.ts';
import { newBuild } from '../../state/bench.ts';
import { useJoint, useOpen, useVariant } from '../../state/open.ts';
import { usePrefs, useUnits, said } from '../../state/prefs.ts';
import { useEdits, useShelf } from '../../state/shelf.ts';
import { useStage } from '../../state/stages.ts';
import { useFitSheet } from '../../workers/fits.ts';
import { partOutlines, solidFile } from '../../workers/solid.ts';
import type { SolidFormat } from '../../workers/solid-api.ts';
import { Said } from '../../parts/Said.tsx';
import { HousingParts } from './HousingParts.tsx';
import { LineFiles } from './LineFiles.tsx';
import { BusyNote, useMaking } from './making.tsx';
import { PartsTable } from './PartsTable.tsx';
import { Panes } from '../../parts/Panes.tsx';

// Drawing in space is large and comes when it is asked for.
const SpaceView = view(() => import('./space/SpaceView.tsx'));

type Corrections = Readonly<Record<string, Correction>>;

/** How contours were moved, for a sheet's note and a notice; nothing where they are as drawn. */
function movedWords(own: Correction | undefined, compensation: number): string {
  if (own) return isPlain(own) ? '' : ', drawn for its process';
  return compensation === 0 ? '' : `, moved in by ${formatQuantity(compensation, 'length', { length: 'µm' })}`;
}

function StageParts({
  stage,
  index,
  chordError,
  reference,
  solidError,
  compensation,
  corrections,
}: {
  stage: StageRecord;
  index: number;
  chordError: number;
  /** Layers that are only looked at go into a DXF as well. */
  reference: boolean;
  solidError: number;
  compensation: number;
  /** How parts are drawn for their processes, by their keys. */
  corrections: Corrections;
}) {
  const joint = useJoint();
  const variant = useVariant();
  const edits = useEdits();
  const { busy, make } = useMaking('The solid could not be made');
  const [looking, setLooking] = useState(false);
  const opened = useStage(stage);
  const made = useMemo(() => (opened?.ok ? opened.value.parts() : opened), [opened]);
  if (!made) return null;
  if (!made.ok) return <ProblemNote problem={made.problem} />;
  const ofStage = Object.fromEntries(
    made.value.flatMap((p) => {
      const own = corrections[partKey(index, p.id)];
      return own ? [[p.id, own] as const] : [];
    }),
  );
  const save = async (part: Part, kind: 'svg' | 'dxf') => {
    const name = `${joint.name}, variant ${variant.name}, stage ${index + 1}, ${part.name}`;
    let curves = part.curves;
    const own = corrections[partKey(index, part.id)];
    const moves = own ? !isPlain(own) : compensation !== 0;
    if (moves) {
      const moved = await partOutlines(
        {
          kind: stage.kind,
          params: stage.params,
          shop: edits,
          part: part.id,
          chordError: chordError / 2,
          compensation,
          ...(own && { corrections: { [part.id]: own } }),
        },
        new AbortController().signal,
      );
      if (!moved.ok) return void toast(sayProblem(moved.problem));
      curves = moved.value;
    }
    const by = movedWords(own, compensation);
    const sheet = { title: name, note: said(`${part.note}${by}`), curves };
    const file = `${fileName(joint.name, variant.name, `stage${index + 1}`, part.id)}.${kind}`;
    if (kind === 'svg') download(file, writeSvg(sheet), 'image/svg+xml');
    else download(file, writeDxf(sheet, { reference }), 'application/dxf');
    toast(
      !moves
        ? `${file}: millimetres, arcs exact.`
        : `${file}: millimetres, closed, chord error ${formatQuantity(chordError, 'length', { length: 'µm' })}${by}.`,
    );
  };
  const solid = (format: SolidFormat, part?: Part) => {
    const name = part?.name ?? `Stage ${index + 1}`;
    return make(name, async (says, signal) => {
      const file = `${fileName(joint.name, variant.name, `stage${index + 1}`, part?.id ?? 'parts')}.${format}`;
      const out = await solidFile(
        {
          kind: stage.kind,
          params: stage.params,
          shop: edits,
          ...(part && { part: part.id }),
          format,
          chordError: solidError,
          compensation: format === 'step' ? 0 : compensation,
          ...(format !== 'step' && { corrections: ofStage }),
          title: `${joint.name}, variant ${variant.name}, stage ${index + 1}, ${name}`,
        },
        (share) => says(name, share),
        signal,
      );
      if (!out.ok) return void toast(sayProblem(out.problem));
      download(file, out.value, `model/${format}`);
      toast(
        format === 'step'
          ? `${file}: millimetres, exact splines and arcs, as drawn.`
          : `${file}: millimetres, surface within ` +
              (`${formatQuantity(solidError, 'length', { length: 'µm' })}` +
                `${movedWords(part ? corrections[partKey(index, part.id)] : Object.values(ofStage)[0], compensation)}.`),
      );
    });
  };
  const bodies = made.value.some((p) => p.solid);
  return (
    <section aria-label={`Parts of stage ${index + 1}`} className="pb-4">
      <h2 className="flex items-baseline justify-between border-b border-strong pb-1">
        <span>
          Stage {index + 1}, {stageKind(stage.kind)?.name.toLowerCase()}
        </span>
        {busy ? (
          <BusyNote busy={busy} />
        ) : bodies ? (
          <span>
            <button type="button" className="mend mr-3 font-normal" onClick={() => setLooking(true)}>
              In space
            </button>
            <button type="button" className="mend font-normal" onClick={() => void solid('3mf')}>
              All parts as one 3MF
            </button>
            <button type="button" className="mend ml-3 font-normal" onClick={() => void solid('step')}>
              as one STEP
            </button>
          </span>
        ) : null}
      </h2>
      {looking ? (
        <Suspense fallback={null}>
          <SpaceView
            stage={stage}
            name={`Stage ${index + 1}, ${stageKind(stage.kind)?.name.toLowerCase()}`}
            onClose={() => setLooking(false)}
          />
        </Suspense>
      ) : null}
      <PartsTable
        parts={made.value}
        files={(p) =>
          p.curves.length ? (
            <>
              <button
                type="button"
                className="mend"
                aria-label={`${p.name} as SVG`}
                onClick={() => void save(p, 'svg')}
              >
                SVG
              </button>{' '}
              <button
                type="button"
                className="mend ml-2"
                aria-label={`${p.name} as DXF`}
                onClick={() => void save(p, 'dxf')}
              >
                DXF
              </button>
              {p.solid ? (
                <button
                  type="button"
                  className="mend ml-3"
                  disabled={busy !== undefined}
                  aria-label={`${p.name} as STL`}
                  onClick={() => void solid('stl', p)}
                >
                  STL
                </button>
              ) : null}
              {p.solid ? (
                <button
                  type="button"
                  className="mend ml-2"
                  disabled={busy !== undefined}
                  aria-label={`${p.name} as STEP`}
                  onClick={() => void solid('step', p)}
                >
                  STEP
                </button>
              ) : null}
            </>
          ) : undefined
        }
      />
      <details className="pt-2">
        <summary className="label cursor-pointer">Putting it together</summary>
        <ol className="list-decimal pl-6 pt-1">
          {(opened?.ok ? opened.value.assembly() : []).map((s) => (
            <li key={s.do}>
              <Said>{s.do}</Said>{' '}
              {s.caution ? (
                <span className="text-found">
                  <Said>{s.caution}</Said>
                </span>
              ) : null}
            </li>
          ))}
        </ol>
      </details>
    </section>
  );
}

/** Builds: one specimen each, with process, date and what deviated. */
function Builds() {
  const joint = useJoint();
  const variant = useVariant();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const { processes } = useShelf();
  const builds = joint.builds.filter((b) => b.variantId === variant.id);
  const set = (id: string, key: 'name' | 'date' | 'process' | 'notes', label: string) => (value: string) =>
    edit(`Build: ${label}`, (d) => void (d.builds.find((b) => b.id === id)![key] = value));
  return (
    <Section title="Builds" aside={`of variant ${variant.name}`}>
      {builds.length === 0 ? (
        <p className="label">A build is one specimen you made of this variant. Tests on the bench belong to it.</p>
      ) : null}
      {builds.map((b) => {
        const tests = joint.tests.filter((t) => t.buildId === b.id).length;
        return (
          <div key={b.id} className="rule-b space-y-1 pb-2 pt-1" data-build={b.name}>
            <TextField
              label="Name"
              value={b.name}
              refuse={(v) => v === ''}
              className="text-right font-semibold"
              onChange={set(b.id, 'name', 'name')}
            />
            <div className="flex items-baseline justify-between gap-2">
              <label htmlFor={`date-${b.id}`}>Date</label>
              <input
                id={`date-${b.id}`}
                type="date"
                className="select num"
                value={b.date}
                disabled={readOnly}
                onChange={(e) => e.target.value && set(b.id, 'date', 'date')(e.target.value)}
              />
            </div>
            <ChoiceField
              label="Was made by"
              value={b.making?.process ?? ''}
              disabled={readOnly}
              options={[
                { value: '', label: 'as noted below' },
                ...processes.map((p) => ({ value: p.id, label: p.name })),
              ]}
              onChange={(v) =>
                edit('Build: made by', (d) => {
                  const own = d.builds.find((x) => x.id === b.id)!;
                  if (v === '') delete own.making;
                  else own.making = { ...own.making, process: String(v) };
                })
              }
            />
            {(['process', 'notes'] as const).map((key) => (
              <label key={key} className="block">
                {key === 'process' ? 'Process' : 'Notes, deviations'}
                <textarea
                  key={b[key]}
                  className="mt-0.5 block w-full border border-rule bg-transparent p-1 text-[12.5px]"
                  rows={3}
                  maxLength={20000}
                  readOnly={readOnly}
                  placeholder={
                    key === 'process'
                      ? 'Machine, nozzle or cutter, material, settings'
                      : 'What came out otherwise than drawn'
                  }
                  defaultValue={b[key]}
                  onBlur={(e) => e.target.value !== b[key] && set(b.id, key, key)(e.target.value)}
                />
              </label>
            ))}
            {builtAsNow(b, variant) ? null : (
              <p className="label">
                The variant has changed since: what is found of this build says nothing of it as it is now.{' '}
                <button
                  type="button"
                  className="mend"
                  disabled={readOnly}
                  onClick={() =>
                    edit(`Build ${b.name} is as designed now`, (d) => {
                      d.builds.find((x) => x.id === b.id)!.design = designOf(variant);
                    })
                  }
                >
                  It was built as it is now
                </button>
              </p>
            )}
            <button
              type="button"
              className="btn-quiet -ml-1.5"
              disabled={readOnly}
              onClick={() =>
                edit(`Delete build ${b.name}`, (d) => {
                  d.builds = d.builds.filter((x) => x.id !== b.id);
                  d.tests = d.tests.filter((t) => t.buildId !== b.id);
                })
              }
            >
              Delete{tests ? ` with its ${tests} test${tests === 1 ? '' : 's'}` : ''}
            </button>
          </div>
        );
      })}
      <button
        type="button"
        className="btn mt-2"
        disabled={readOnly}
        onClick={() =>
          edit('Add build', (d) => void d.builds.push(newBuild(variant, `${variant.name}-${builds.length + 1}`)))
        }
      >
        Record a build
      </button>
    </Section>
  );
}

const NONE: Corrections = {};

/** Parts, their outlines as files, the order of assembly, and the builds that came of it. */
export default function MakeView() {
  const variant = useVariant();
  const units = useUnits();
  const [chordError, setChordError] = useState(2e-6);
  const [reference, setReference] = useState(false);
  const [solidError, setSolidError] = useState(1e-5);
  const [typed, setTyped] = useState(0);
  const joint = useJoint();
  const shelf = useShelf();
  const fitted = usePrefs((s) => s.drawFits);
  const process = shelf.processes.find((p) => p.id === variant.making?.process);
  const { sheet, current } = useFitSheet(fitted);
  // Files of a moment ago would be drawn for another process, or for none.
  const waiting = variant.making !== undefined && !current;
  const corrections = sheet?.ok ? sheet.value.corrections : NONE;
  // What a process says of itself takes the place of a number that is typed.
  const compensation = process ? 0 : typed;
  return (
    <Panes
      id="make"
      name="the builds"
      width={270}
      plain="one-column grid h-full min-h-0 grid-cols-1"
      pane={
        <div className="min-h-0 overflow-y-auto  bg-panel px-4 pt-3">
          <Builds />
        </div>
      }
    >
      <div className="min-h-0 min-w-0 overflow-y-auto px-5 pt-3">
        <div className="flex items-baseline justify-between gap-4 pb-3">
          <h1 className="text-[15px]">
            Parts and outlines{' '}
            <span className="label block font-normal">
              millimetres; SVG and DXF have true arcs and circles, STL and 3MF closed surfaces, STEP exact bodies
            </span>
          </h1>
          <div className="w-[250px] shrink-0">
            <QuantityField
              label="Solid chord error"
              quantity="length"
              value={solidError}
              min={1e-6}
              max={1e-3}
              step={5e-6}
              onChange={setSolidError}
              help={
                'Largest distance between an STL or 3MF surface and the exact one, now ' +
                `${formatQuantity(solidError, 'length', { ...units, length: 'µm' })}.`
              }
            />
            {process ? (
              <p className="flex items-baseline justify-between gap-2">
                <span>Drawn for</span>
                <Link className="mend inline-block py-[3px] text-right" to={`/joint/${slug(joint.id)}/make/fit`}>
                  {process.name}
                  {process.compensates === 'outline'
                    ? ''
                    : process.compensates === 'slicer'
                      ? ', by the slicer'
                      : ', as drawn'}
                </Link>
              </p>
            ) : (
              <>
                <QuantityField
                  label="Compensation"
                  quantity="length"
                  value={typed}
                  min={-2e-4}
                  max={5e-4}
                  step={1e-5}
                  onChange={setTyped}
                  help="Moves every contour into the material, outside in and holes out, by what the process adds on a side; measure a made part to know it. 0 is as drawn; STEP always is."
                />
                <Link className="mend block py-[3px] text-right" to={`/joint/${slug(joint.id)}/make/fit`}>
                  or choose a process
                </Link>
              </>
            )}
            {compensation === 0 && !process ? null : (
              <QuantityField
                label="Contour chord error"
                quantity="length"
                value={chordError}
                min={1e-7}
                max={1e-3}
                step={1e-6}
                onChange={setChordError}
                help={`Largest distance between a contour that was moved and the exact one, now ${formatQuantity(chordError, 'length', { ...units, length: 'µm' })}.`}
              />
            )}
            <label className="mt-1 flex items-center justify-between gap-2">
              Reference lines in DXF
              <input type="checkbox" checked={reference} onChange={(e) => setReference(e.target.checked)} />
            </label>
          </div>
        </div>
        {variant.stages.length === 0 ? (
          <p>There is nothing to make yet. Add stages in the Line, and their parts appear here.</p>
        ) : null}
        {waiting ? (
          <p className="label" role="status">
            Working out what its process needs…
          </p>
        ) : null}
        <fieldset disabled={waiting} className="contents">
          {variant.stages.length > 0 ? (
            <LineFiles
              chordError={chordError}
              reference={reference}
              solidError={solidError}
              compensation={compensation}
              corrections={corrections}
              sheet={sheet?.ok ? sheet.value : undefined}
            />
          ) : null}
          {variant.stages.map((s, i) => (
            <StageParts
              key={s.id}
              stage={s}
              index={i}
              chordError={chordError}
              reference={reference}
              solidError={solidError}
              compensation={compensation}
              corrections={corrections}
            />
          ))}
          <HousingParts
            compensation={compensation}
            corrections={corrections}
            chordError={chordError}
            reference={reference}
          />
        </fieldset>
        <p className="caution mb-3">
          Press fits: press, do not hammer, and support the ring being pressed. Eye protection for cutting; gloves and
          fresh air for resin and glue.
        </p>
      </div>
    </Panes>
  );
}
