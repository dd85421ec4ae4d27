import {
  bare,
  editsFor,
  AIM_WORDS,
  AIMS,
  aimsOfReport,
  beyond,
  briefBounds,
  characterOf,
  demandOf,
  inOrderOf,
  LIMIT_KINDS,
  ownSays,
  PRIORITIES,
  processesOf,
  stageKind,
  stageKinds,
  travelOf,
  countSays,
  whyNotSays,
  type Aim,
  type AimBounds,
  type FindResult,
  type FoundLine,
  type Priority,
  type Variant,
} from '@gristmill/core';
import { getCoreRowModel, getSortedRowModel, useReactTable, type ColumnDef } from '@tanstack/react-table';
import { format, isToday } from 'date-fns';
import { useEffect, useMemo, useRef } from 'react';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { Glyph } from '../../parts/Glyph.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Said } from '../../parts/Said.tsx';
import { SortHead } from '../../parts/SortHead.tsx';
import { askedOf, recallSearch, startSearch, stopSearch, useSearches, type Search } from '../../state/find.ts';
import { useFindLook } from '../../state/find-view.ts';
import { newId } from '../../state/identifier.ts';
import { note } from '../../state/note.ts';
import { useJoint, useOpen, useVariant } from '../../state/open.ts';
import { useEdits, useShelf } from '../../state/shelf.ts';
import { useSaid } from '../../state/said.ts';
import { AllStraight } from '../../state/straight.tsx';
import { copyVariant } from '../../state/variants.ts';
import { useTrials } from '../../workers/queries.ts';
import { DrawerDetails } from '../shop/Drawer.tsx';
import { Advice, AimText, namesOf, There } from './found.tsx';
import { FoundPlot, type Own } from './FoundPlot.tsx';
import { TYPE_NAMES } from './MotorPanel.tsx';
import type { SearchFor } from '../../workers/api.ts';
import { findPool } from '../../workers/core.ts';

const DOING = { screening: 'Screening stages', composing: 'Putting lines together', computing: 'Computing them whole' };
const thousands = (n: number): string => n.toLocaleString('en').replaceAll(',', '\u202f');

/** Whether a line is bought as a whole, made as a whole but for what is bought anyway, or both. */
function madeOf(stages: FoundLine['stages']): 'bought' | 'made' | 'both' {
  const bought = stages.filter((s) => stageKind(s.kind)?.bought).length;
  return bought === stages.length ? 'bought' : bought === 0 ? 'made' : 'both';
}

/** What the search does, or has done, in a line. */
function Progress({ search, stale }: { search: Search; stale: boolean }) {
  const { at, running, result } = search;
  if (running)
    return (
      <p role="status" className="flex items-center gap-2">
        {at ? DOING[at.doing] : 'Beginning'}…{' '}
        <progress max={1} value={at?.share ?? 0} aria-label="Search" className="h-2 w-40" />
        <span className="num text-muted">
          {thousands(at?.screened ?? 0)} stages, {countSays(at?.looked ?? 0)} lines
        </span>
        {search.first ? <span className="label">Below: what a first look found.</span> : null}
      </p>
    );
  return (
    <p role="status" className="label">
      {search.stopped ? (search.first ? 'Stopped after a first look: ' : 'Stopped. ') : ''}
      {result
        ? `${result.lines.length} lines out of ${countSays(result.looked, result.pruned)}; ${thousands(result.screened)} stages, ${format(search.when, isToday(search.when) ? 'HH:mm' : 'd MMM, HH:mm')}.`
        : ''}
      {stale && result ? ' The brief, the motor or the shop has changed since: find again.' : ''}
    </p>
  );
}

/** A line in its own words, what it must meet and how likely, and what can be done with it. */
function OpenLine({ line, lines, onTake }: { line: FoundLine; lines: readonly FoundLine[]; onTake: () => void }) {
  const readOnly = useOpen((s) => s.readOnly);
  const said = useSaid();
  const { all, risk } = line.chance;
  return (
    <section aria-label="The chosen line" className="border border-rule bg-panel px-3 py-2">
      <div className="flex items-center gap-3">
        {line.stages.map((s) => (
          <Glyph key={s.id} stage={s} width={58} height={48} />
        ))}
        <button type="button" className="btn ml-auto" disabled={readOnly} onClick={onTake}>
          Take as variant
        </button>
      </div>
      <h2 className="pt-1">
        {namesOf(line.stages)} <span className="label font-normal">with {line.motor.name}</span>
      </h2>
      <p>{said(characterOf(line, lines))}</p>
      <p className="label" title="Told by the bands, each limit as if no other were.">
        Meets every must with about {Math.round(100 * all)} %
        {risk && risk.met < 0.995 ? `; most at risk: ${LIMIT_KINDS[risk.limit].name.toLowerCase()}` : ''}.
      </p>
      <There line={line} />
    </section>
  );
}

/** Two lines side by side. */
function TwoLines({ a, b }: { a: FoundLine; b: FoundLine }) {
  return (
    <section aria-label="Two lines side by side">
      <table className="w-full text-[12.5px]">
        <thead>
          <tr className="border-b border-strong">
            <th>compared</th>
            <th className="text-right">{namesOf(a.stages)}</th>
            <th className="text-right">{namesOf(b.stages)}</th>
          </tr>
        </thead>
        <tbody>
          <tr className="rule-b">
            <td>motor</td>
            <td className="text-right">{a.motor.name}</td>
            <td className="text-right">{b.motor.name}</td>
          </tr>
          {AIMS.map((aim) => {
            const { most, name } = AIM_WORDS[aim];
            const first = a.aims[aim] === b.aims[aim] ? 0 : a.aims[aim] > b.aims[aim] === most ? 1 : 2;
            return (
              <tr key={aim} className="rule-b">
                <td>{name}</td>
                <td className={`num text-right ${first === 1 ? 'font-semibold' : ''}`}>
                  <AimText line={a} aim={aim} />
                </td>
                <td className={`num text-right ${first === 2 ? 'font-semibold' : ''}`}>
                  <AimText line={b} aim={aim} />
                </td>
              </tr>
            );
          })}
          <tr className="rule-b">
            <td>chance of every must</td>
            <td className="num text-right">{Math.round(100 * a.chance.all)} %</td>
            <td className="num text-right">{Math.round(100 * b.chance.all)} %</td>
          </tr>
        </tbody>
      </table>
    </section>
  );
}

/** For each kind that was allowed and has no line, why, and its nearest miss to be looked at. */
function WhyNotList({
  result,
  onLook,
}: {
  result: FindResult;
  onLook: (line: Pick<FoundLine, 'stages' | 'motor' | 'driver'>) => void;
}) {
  const readOnly = useOpen((s) => s.readOnly);
  if (result.whyNot.length === 0) return null;
  return (
    <section aria-label="Why not" className="pt-2">
      <h2 className="rule-b pb-0.5">Why not</h2>
      <ul className="text-[13px]">
        {result.whyNot.map((w) => (
          <li key={w.kind} className="rule-b py-0.5">
            <Said>{whyNotSays(w)}</Said>{' '}
            {w.line ? (
              <button type="button" className="mend" disabled={readOnly} onClick={() => onLook(w.line!)}>
                Look at it as a variant
              </button>
            ) : null}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A housing for another motor: the face that was given is the old one's. */
function faceless({ face: _, ...housing }: NonNullable<Variant['housing']>): NonNullable<Variant['housing']> {
  return housing;
}

/** How the joint's own variants stand beside what was found. */
function OwnVariants({ own, lines }: { own: readonly Own[]; lines: readonly FoundLine[] }) {
  if (own.length === 0) return null;
  return (
    <section aria-label="Your variants beside them" className="pt-2">
      <h2 className="rule-b pb-0.5">Your variants beside them</h2>
      <ul className="list-disc pl-4 text-[13px]">
        {own.map((o) => (
          <li key={o.id}>
            <Said>{ownSays(o.name, o.report, lines)}</Said>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Bounds on what the plot shows, as the brief asks or as they were drawn. */
function BoundFields({
  aims,
  bounds,
  asked,
  drawn,
  onChange,
}: {
  aims: readonly [Aim, Aim];
  bounds: AimBounds;
  asked: AimBounds;
  drawn: AimBounds;
  onChange: (drawn: AimBounds) => void;
}) {
  const shown = [...new Set(aims)].filter((a) => bounds[a] !== undefined);
  const moved = Object.keys(drawn).length > 0;
  if (shown.length === 0 && !moved) return null;
  return (
    <div className="flex flex-wrap items-baseline gap-x-5 pt-1">
      {shown.map((a) => (
        <span key={a} className="w-[190px]">
          <QuantityField
            label={`${AIM_WORDS[a].name}, at ${AIM_WORDS[a].most ? 'least' : 'most'}`}
            quantity={AIM_WORDS[a].quantity}
            value={bounds[a]!}
            min={0}
            step={bounds[a]! / 20}
            onChange={(v) => onChange({ ...drawn, [a]: v })}
          />
        </span>
      ))}
      {moved ? (
        <button type="button" className="btn-quiet" onClick={() => onChange({})}>
          {Object.keys(asked).length ? 'As the brief asks' : 'Without bounds'}
        </button>
      ) : null}
    </div>
  );
}

/** Whole lines of unlike mechanisms that do what the brief asks, to pick from; and why the others do not. */
export default function FindView() {
  return (
    <AllStraight>
      <Find />
    </AllStraight>
  );
}

function Find() {
  const joint = useJoint();
  const variant = useVariant();
  const edits = useEdits();
  const edit = useOpen((s) => s.edit);
  // Found lines have no housing: beside them the joint's own are told without theirs.
  const reports = useTrials(
    joint.variants.map((v) => ({ brief: joint.brief, variant: bare(v), edits: editsFor(joint, edits) })),
  );
  const own = useMemo(
    () =>
      joint.variants.flatMap((v, i): Own[] => {
        const report = reports[i];
        return report ? [{ id: v.id, name: v.name, report, aims: aimsOfReport(report) }] : [];
      }),
    [joint.variants, reports],
  );
  const search = useSearches((s) => s.of[joint.id]);
  useEffect(() => void recallSearch(joint.id), [joint.id]);
  const shelf = useShelf();
  const [look, see] = useFindLook(joint.id);
  const { without, stages, weights, axes, only, motors, made, process, within, chosen, pair } = look;
  const straight = travelOf(joint.brief) !== undefined;
  // A stage that runs straight ends no line that turns.
  const kinds = stageKinds().filter((k) => straight || !k.straight);
  // Who looks will soon press: the workers load meanwhile, and go through a first look.
  const first = useRef<SearchFor>({ brief: joint.brief, variant, edits, kinds: kinds.map((k) => k.id), stages });
  useEffect(() => findPool.warm((api) => api.rehearse(first.current)), []);
  const all = useMemo(() => search?.result?.lines ?? [], [search?.result]);
  const asked = useMemo(() => briefBounds(joint.brief.limits, demandOf(joint.brief, shelf)), [joint.brief, shelf]);
  const bounds = useMemo(() => ({ ...asked, ...look.bounds }), [asked, look.bounds]);
  const lines = useMemo(
    () =>
      inOrderOf(
        all.filter(
          (l) =>
            (only === '' || l.stages.some((s) => s.kind === only)) &&
            (motors === '' || l.motor.type === motors) &&
            (made === '' || madeOf(l.stages) === made) &&
            (process === '' || processesOf(l.stages, shelf.materials).has('milled') === (process === 'milled')) &&
            (!within || beyond(l, bounds).length === 0),
        ),
        weights,
      ),
    [all, only, motors, made, process, within, bounds, weights, shelf],
  );
  const columns = useMemo<ColumnDef<FoundLine>[]>(
    () => [
      { id: 'line', accessorFn: (l) => namesOf(l.stages), sortingFn: 'text' },
      // The best end first.
      ...AIMS.map((aim): ColumnDef<FoundLine> => ({
        id: aim,
        accessorFn: (l) => l.aims[aim],
        sortDescFirst: AIM_WORDS[aim].most,
      })),
      { id: 'chance', accessorFn: (l) => l.chance.all, sortDescFirst: true },
    ],
    [],
  );
  // It keeps its own state of sorting; what it gives is asked for at each render.
  // eslint-disable-next-line react-hooks/incompatible-library
  const table = useReactTable({
    data: lines as FoundLine[],
    columns,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getRowId: (l) => l.id,
  });
  const open = lines.find((l) => l.id === chosen) ?? lines[0];
  const two = pair.flatMap((id) => lines.find((l) => l.id === id) ?? []);
  const now = { brief: joint.brief, variant, edits };
  const stale = search !== undefined && askedOf(now).some((x, i) => x !== search.asked[i]);
  const begin = () => {
    see({ pair: [] });
    void startSearch(joint.id, { ...now, kinds: kinds.map((k) => k.id).filter((k) => !without.includes(k)), stages });
  };
  const take = (line: Pick<FoundLine, 'stages' | 'motor' | 'driver'>) => {
    edit('Take a found line as a variant', (d) =>
      copyVariant(d, {
        motor: line.motor as Variant['motor'],
        driver: line.driver as Variant['driver'],
        stages: line.stages.map((s) => ({ ...s, id: newId() })),
        follows: false,
        ...(variant.housing && { housing: faceless(variant.housing) }),
        notes: '',
      }),
    );
    note(`A new variant: ${namesOf(line.stages)}.`);
  };
  const weigh = (of: Priority, value: number) => see({ weights: { ...weights, [of]: value } });
  return (
    <div className="pb-3">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-1">
        <h1 className="text-[15px]">Which lines could do it</h1>
        {search?.running ? (
          <button type="button" className="btn" onClick={() => stopSearch(joint.id)}>
            Stop
          </button>
        ) : (
          <button type="button" className="btn" onClick={begin}>
            {search?.result ? 'Find again' : 'Find lines'}
          </button>
        )}
        <ChoiceField
          label="Stages, at most"
          value={stages}
          options={[1, 2, 3].map((n) => ({ value: n, label: String(n) }))}
          onChange={(v) => see({ stages: Number(v) })}
        />
        <details>
          <summary className="label cursor-pointer">
            {without.length ? `${kinds.length - without.length} of ${kinds.length} kinds` : 'all kinds allowed'}
          </summary>
          <fieldset className="flex flex-wrap gap-x-4">
            <legend className="sr-only">Kinds allowed</legend>
            {kinds.map((k) => (
              <label key={k.id} className="flex items-baseline gap-1">
                <input
                  type="checkbox"
                  className="accent-[var(--ink)]"
                  checked={!without.includes(k.id)}
                  onChange={(e) =>
                    see({ without: e.target.checked ? without.filter((x) => x !== k.id) : [...without, k.id] })
                  }
                />
                {k.name.toLowerCase()}
              </label>
            ))}
          </fieldset>
        </details>
        <DrawerDetails />
      </div>
      {search ? <Progress search={search} stale={stale} /> : null}
      {search?.problem ? <ProblemNote problem={search.problem} /> : null}
      {!search ? (
        <p className="label max-w-[70ch] py-2">
          Every kind of stage is screened at what it would carry, put together with every motor of the shop, and the
          lines none of which is worse than another in everything are laid out here. What the brief calls a must binds;
          half a minute, and other views can be used meanwhile. Lines are compared without a housing; one that you take
          gets this variant’s.
        </p>
      ) : null}
      {search?.result && all.length === 0 && !search.running && !search.first ? (
        <ProblemNote
          problem={{
            what: 'No line that was put together meets every must.',
            why: 'Below stands what stops the nearest of each kind.',
            mend: 'Look at the nearest misses, make a must that is only wished for a wish, or allow more kinds or stages.',
          }}
        />
      ) : null}
      {all.length > 0 ? (
        <>
          <div className="grid grid-cols-[minmax(0,9fr)_minmax(0,10fr)] gap-5 pt-1 max-[899px]:grid-cols-1">
            <div className="min-w-0">
              {open ? (
                <FoundPlot
                  lines={lines}
                  own={own}
                  x={axes[0]}
                  y={axes[1]}
                  bounds={bounds}
                  chosen={open.id}
                  onChoose={(id) => see({ chosen: id })}
                  onBound={(aim, value) => see({ bounds: { ...look.bounds, [aim]: value } })}
                />
              ) : null}
              <div className="flex flex-wrap gap-x-5">
                {(['across', 'up'] as const).map((name, k) => (
                  <ChoiceField
                    key={name}
                    label={name}
                    value={axes[k]!}
                    options={AIMS.map((a) => ({ value: a, label: AIM_WORDS[a].name }))}
                    onChange={(v) => see({ axes: k === 0 ? [v as Aim, axes[1]] : [axes[0], v as Aim] })}
                  />
                ))}
              </div>
              <BoundFields
                aims={axes}
                bounds={bounds}
                asked={asked}
                drawn={look.bounds}
                onChange={(next) => see({ bounds: next })}
              />
              <label className="flex items-baseline gap-2 pt-1 text-[13px]">
                <input
                  type="checkbox"
                  className="accent-[var(--ink)]"
                  checked={within}
                  onChange={(e) => see({ within: e.target.checked })}
                />
                only lines within these and the brief’s other limits
                <span className="label">
                  {all.filter((l) => beyond(l, bounds).length === 0).length} of {all.length}, the others faint
                </span>
              </label>
            </div>
            <div className="min-w-0">
              {open ? (
                <OpenLine line={open} lines={all} onTake={() => take(open)} />
              ) : (
                <p className="label">None of the lines found is of these: choose another mechanism or motor below.</p>
              )}
              <fieldset className="grid grid-cols-2 gap-x-5 pt-2">
                <legend className="label">What matters: the order follows, the set stays</legend>
                {PRIORITIES.map((of) => (
                  <label key={of} className="flex items-center justify-between gap-2 text-[13px]">
                    {of === 'chance' ? 'chance' : AIM_WORDS[of].name}
                    <input
                      type="range"
                      min={0}
                      max={4}
                      step={1}
                      className="w-24 accent-[var(--ink)]"
                      value={weights[of] ?? 0}
                      onChange={(e) => weigh(of, Number(e.target.value))}
                    />
                  </label>
                ))}
              </fieldset>
              {search!.first ? null : (
                <>
                  <Advice lines={all} />
                  <OwnVariants own={own} lines={all} />
                  <WhyNotList result={search!.result!} onLook={take} />
                </>
              )}
            </div>
          </div>
          {two.length === 2 ? <TwoLines a={two[0]!} b={two[1]!} /> : null}
          <div className="flex flex-wrap items-baseline gap-x-5 pt-1">
            <ChoiceField
              label="With"
              value={only}
              options={[
                { value: '', label: 'any mechanism' },
                ...kinds
                  .filter((k) => all.some((l) => l.stages.some((s) => s.kind === k.id)))
                  .map((k) => ({ value: k.id, label: k.name.toLowerCase() })),
              ]}
              onChange={(v) => see({ only: String(v) })}
            />
            <ChoiceField
              label="driven by"
              value={motors}
              options={[
                { value: '', label: 'any motor' },
                ...[...new Set(all.map((l) => l.motor.type))].map((t) => ({ value: t, label: TYPE_NAMES[t] })),
              ]}
              onChange={(v) => see({ motors: String(v) })}
            />
            <ChoiceField
              label="gearing"
              value={made}
              options={[
                { value: '', label: 'made or bought' },
                { value: 'made', label: 'made' },
                { value: 'bought', label: 'bought' },
                { value: 'both', label: 'some of each' },
              ]}
              onChange={(v) => see({ made: String(v) })}
            />
            <ChoiceField
              label="process"
              value={process}
              options={[
                { value: '', label: 'any' },
                { value: 'printed', label: 'printed alone' },
                { value: 'milled', label: 'something milled' },
              ]}
              onChange={(v) => see({ process: String(v) })}
            />
            <span className="label">
              {pair.length === 1 ? 'Mark another to compare two.' : 'Mark two to see them side by side.'}
            </span>
          </div>
          <div className="relative max-w-full overflow-x-auto">
            <table className="w-full text-[12.5px]" aria-label="Found lines">
              <thead>
                <tr className="border-b border-strong">
                  <SortHead column={table.getColumn('line')}>line, from the motor</SortHead>
                  {AIMS.map((aim) => (
                    <SortHead key={aim} column={table.getColumn(aim)} className="whitespace-nowrap pl-2 text-right">
                      {AIM_WORDS[aim].name}
                    </SortHead>
                  ))}
                  <SortHead column={table.getColumn('chance')} className="pl-2 text-right">
                    chance
                  </SortHead>
                  <th className="pl-2">
                    <span className="sr-only">Compare</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {table.getRowModel().rows.map(({ original: l }) => (
                  <tr
                    key={l.id}
                    data-found-line={l.id}
                    className={`rule-b align-baseline ${l === open ? 'bg-panel' : ''}`}
                    aria-current={l === open ? 'true' : undefined}
                  >
                    <td className="py-[2px]">
                      <button type="button" className="text-left hover:underline" onClick={() => see({ chosen: l.id })}>
                        <span className={l === open ? 'font-semibold' : ''}>{namesOf(l.stages)}</span>{' '}
                        <span className="label block whitespace-nowrap">{l.motor.name}</span>
                      </button>
                    </td>
                    {AIMS.map((aim) => (
                      <td key={aim} className="num whitespace-nowrap py-[2px] pl-2 text-right">
                        <AimText line={l} aim={aim} />
                      </td>
                    ))}
                    <td className="num whitespace-nowrap py-[2px] pl-2 text-right">
                      {Math.round(100 * l.chance.all)} %
                    </td>
                    <td className="py-[2px] pl-2">
                      <input
                        type="checkbox"
                        className="accent-[var(--ink)]"
                        aria-label={`Compare ${namesOf(l.stages)}`}
                        checked={pair.includes(l.id)}
                        onChange={(e) =>
                          see({ pair: e.target.checked ? [...pair.slice(-1), l.id] : pair.filter((x) => x !== l.id) })
                        }
                      />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      ) : search?.result && !search.first ? (
        <WhyNotList result={search.result} onLook={take} />
      ) : null}
    </div>
  );
}
