import { stageKind, type Joint, type SectionSheet } from '@gristmill/core';
import type { GoingStep } from '@gristmill/core/assembly/going-together';
import { useQuery } from '@tanstack/react-query';
import { Fragment, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { smallPicture } from '../../../app/picture.ts';
import { ChoiceField } from '../../../parts/ChoiceField.tsx';
import { ProblemNote } from '../../../parts/ProblemNote.tsx';
import { Said } from '../../../parts/Said.tsx';
import { newBuild } from '../../../state/bench.ts';
import { useJoint, useOpen, useVariant } from '../../../state/open.ts';
import { useEdits } from '../../../state/shelf.ts';
import { contentId } from '../../../workers/content.ts';
import { useSectionSheet } from '../../../workers/queries.ts';
import { lineOrder } from '../../../workers/solid.ts';
import { SectionDrawing } from '../section/SectionDrawing.tsx';

type Build = Joint['builds'][number];
type StepRecord = NonNullable<Build['assembly']>[string];

/** The section with what is there after a step, its part picked out. */
const upTo = (sheet: SectionSheet, there: ReadonlySet<string>): SectionSheet => ({
  ...sheet,
  regions: sheet.regions.filter((r) => there.has(r.id) || (r.id === 'motor/shaft' && there.has('motor/body'))),
  envelope: undefined,
});

/** One step: tick, what to do, with what, and what came out otherwise. */
function Step({
  step,
  number,
  build,
  open,
  onOpen,
}: {
  step: GoingStep;
  number: number;
  build: Build | undefined;
  open: boolean;
  onOpen: () => void;
}) {
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const kept = build?.assembly?.[step.id];
  const set = (what: string, change: (k: StepRecord) => void) =>
    edit(what, (d) => {
      const b = d.builds.find((x) => x.id === build!.id)!;
      const own = { ...b.assembly?.[step.id] };
      change(own);
      b.assembly = { ...b.assembly, [step.id]: own };
    });
  return (
    <li
      className={`rule-b grid grid-cols-[22px_26px_minmax(0,1fr)] gap-x-1 py-1 ${open ? 'bg-expected-soft' : ''}`}
      data-step={step.id}
    >
      <input
        type="checkbox"
        aria-label={`Step ${number} done`}
        className="mt-1 h-4 w-4 accent-[var(--ink)]"
        checked={kept?.done !== undefined}
        disabled={!build || readOnly}
        onChange={(e) => {
          const done = e.target.checked ? new Date().toISOString() : undefined;
          set(`Step ${number} ${done ? 'done' : 'undone'}`, (k) => {
            if (done) k.done = done;
            else delete k.done;
          });
        }}
      />
      <span className="num label">{number}</span>
      <div>
        <button type="button" className="text-left hover:underline" aria-expanded={open} onClick={onOpen}>
          <Said>{step.do}</Said>
        </button>{' '}
        {step.tool ? (
          <span className="label">
            <Said>{step.tool}</Said>
          </span>
        ) : null}
        {step.caution ? (
          <span className="block text-[12.5px] text-found">
            <Said>{step.caution}</Said>
          </span>
        ) : null}
        {build && (open || kept?.note) ? (
          <input
            key={kept?.note}
            aria-label={`What came out otherwise at step ${number}`}
            placeholder="What came out otherwise: filed, shimmed, tight"
            className="mt-0.5 w-full border-b border-dotted border-rule bg-transparent text-[12.5px]"
            maxLength={2000}
            readOnly={readOnly}
            defaultValue={kept?.note ?? ''}
            onBlur={(e) => {
              const note = e.target.value.trim();
              if (note !== (kept?.note ?? ''))
                set(`Note at step ${number}`, (k) => {
                  if (note) k.note = note;
                  else delete k.note;
                });
            }}
          />
        ) : null}
        {build && (open || kept?.photo) ? (
          <Photo
            number={number}
            photo={kept?.photo}
            readOnly={readOnly}
            onChange={(photo) =>
              set(`Photo at step ${number}`, (k) => {
                if (photo) k.photo = photo;
                else delete k.photo;
              })
            }
          />
        ) : null}
        {kept?.done ? <span className="label block">{kept.done.slice(0, 16).replace('T', ' ')}</span> : null}
      </div>
    </li>
  );
}

/** A picture of a step as it came out: kept small in the joint’s file, without where and when it was taken. */
function Photo({
  number,
  photo,
  readOnly,
  onChange,
}: {
  number: number;
  photo: string | undefined;
  readOnly: boolean;
  onChange: (photo: string | undefined) => void;
}) {
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      onChange(await smallPicture(file));
    } catch {
      toast(`“${file.name}” is no picture that can be read. Choose a JPEG, PNG or WebP.`);
    }
  };
  return photo ? (
    <span className="flex items-start gap-2 pt-1">
      <img src={photo} alt={`Step ${number} as it came out`} className="max-h-40 max-w-full border border-rule" />
      <button type="button" className="mend no-print" disabled={readOnly} onClick={() => onChange(undefined)}>
        Remove
      </button>
    </span>
  ) : (
    <label className="mend no-print inline-block cursor-pointer text-[12.5px]">
      Add a photo
      <input
        type="file"
        accept="image/jpeg,image/png,image/webp"
        className="sr-only"
        aria-label={`Photo of step ${number}`}
        disabled={readOnly}
        onChange={(e) => {
          void take(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
    </label>
  );
}

/** The order in which the line goes together, found by taking it apart: step by step, with what is there by then. */
export default function TogetherView() {
  const joint = useJoint();
  const variant = useVariant();
  const edits = useEdits();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const [share, setShare] = useState(0);
  const [at, setAt] = useState<string | undefined>();
  const builds = joint.builds.filter((b) => b.variantId === variant.id);
  const [chosen, setChosen] = useState<string | undefined>();
  const build = builds.find((b) => b.id === chosen) ?? builds.at(-1);
  const { motor, mount, output, housing, stages } = variant;
  const order = useQuery({
    queryKey: ['order', variant.id, ...[motor, mount, output, housing, stages, edits].map(contentId)],
    queryFn: ({ signal }) => lineOrder({ variant, shop: edits }, setShare, signal),
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: (was) => was,
  });
  const { sheet } = useSectionSheet(0);
  const made = order.data?.ok ? order.data.value : undefined;
  const steps = useMemo(() => made?.steps ?? [], [made]);
  const open = steps.findIndex((s) => s.id === at);
  const shown = open >= 0 ? open : steps.length - 1;
  const there = useMemo(() => new Set(steps.slice(0, shown + 1).map((s) => s.body)), [steps, shown]);
  const view = sheet?.ok && steps.length ? upTo(sheet.value, there) : undefined;
  const done = steps.filter((s) => build?.assembly?.[s.id]?.done).length;
  return (
    <div className="one-column grid h-full min-h-0 grid-cols-[minmax(0,1fr)_minmax(0,1fr)] print:block print:h-auto">
      <div
        className="min-h-0 overflow-y-auto px-5 pt-3 print:overflow-visible"
        tabIndex={0}
        role="region"
        aria-label="Steps of putting it together"
      >
        <div className="flex flex-wrap items-baseline justify-between gap-x-4 pb-2">
          <h1 className="text-[15px]">
            Going together{' '}
            <span className="label block font-normal">
              found by taking the line apart along its axis; a step shows what is there by then
            </span>
          </h1>
          {builds.length > 0 ? (
            <span className="flex items-baseline gap-3">
              <ChoiceField
                label="Build"
                value={build!.id}
                options={builds.map((b) => ({ value: b.id, label: b.name }))}
                onChange={(v) => setChosen(String(v))}
              />
              <span className="label num" role="status">
                {done} of {steps.length} done
              </span>
            </span>
          ) : (
            <button
              type="button"
              className="btn"
              disabled={readOnly}
              onClick={() =>
                edit('Add build', (d) => void d.builds.push(newBuild(variant, `${variant.name}-${builds.length + 1}`)))
              }
            >
              Record a build to tick them off
            </button>
          )}
          <button type="button" className="btn-quiet no-print" onClick={() => window.print()}>
            Print
          </button>
        </div>
        {order.isPending ? (
          <p className="label" role="status">
            Taking it apart: {(share * 100).toFixed(0)} %
          </p>
        ) : null}
        {order.data && !order.data.ok ? <ProblemNote problem={order.data.problem} /> : null}
        {order.isError ? (
          <p role="alert">The order could not be found: {order.error.message}. Change something, or reload the page.</p>
        ) : null}
        {made?.stuck.length ? (
          <section aria-label="What does not go in" className="pb-2">
            <h2 className="rule-b pb-0.5 text-fail">✕ Not all of it goes in</h2>
            <ul className="list-disc pl-4" data-stuck={made.stuck.length}>
              {made.stuck.map((s) => (
                <li key={s}>{s}</li>
              ))}
            </ul>
            <p className="label">
              Make one of them of two pieces, give what is inside a smaller outside or what is round it a larger bore,
              or build the stage on the bench and put it in whole.
            </p>
          </section>
        ) : null}
        <ol>
          {steps.map((s, i) => (
            <Fragment key={s.id}>
              {s.minds ? (
                <li className="rule-b py-1">
                  <details>
                    <summary className="cursor-pointer font-semibold">
                      Stage {s.stage + 1}, {stageKind(stages[s.stage]?.kind ?? '')?.name.toLowerCase()}: what to mind
                    </summary>
                    <ul className="list-disc pl-5 text-[12.5px]">
                      {s.minds.map((m) => (
                        <li key={m.do}>
                          <Said>{m.do}</Said>{' '}
                          {m.caution ? (
                            <span className="text-found">
                              <Said>{m.caution}</Said>
                            </span>
                          ) : null}
                        </li>
                      ))}
                    </ul>
                  </details>
                </li>
              ) : null}
              <Step
                step={s}
                number={i + 1}
                build={build}
                open={open === i}
                onOpen={() => setAt(open === i ? undefined : s.id)}
              />
            </Fragment>
          ))}
        </ol>
        <p className="caution my-3">
          Press, do not hammer; support the ring that is pressed. Fingers clear of meshes and springs; motor unpowered
          until the covers are on. What carries people or could fall on them needs local codes and licensed practice.
        </p>
      </div>
      <div className="min-h-0 border-l border-rule bg-panel p-2 compact:order-first compact:h-[36vh] compact:border-b">
        {view && view.regions.length ? (
          <SectionDrawing
            sheet={view}
            name={`${joint.name} after step ${shown + 1}`}
            picked={open >= 0 ? steps[open]!.body : undefined}
            onPick={(id) => {
              const step = steps.find((s) => s.body === id);
              setAt(step?.id);
            }}
            room={undefined}
            handles={[]}
            onDrag={() => undefined}
          />
        ) : null}
      </div>
    </div>
  );
}
