import {
  askedValue,
  blankLimit,
  caseLoads,
  characterOf,
  createJoint,
  demandOf,
  factor,
  inOrderOf,
  LIMIT_KINDS,
  loadPattern,
  PATTERNS,
  readCase,
  stageKinds,
  whyNotSays,
  type Aim,
  type FoundLine,
  type Joint,
  type Limit,
  type LimitId,
  type LoadCase,
  type Priority,
  type Variant,
} from '@gristmill/core';
import { useEffect, useMemo, useState } from 'react';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { QuantityText } from '../../parts/FigureText.tsx';
import { Glyph } from '../../parts/Glyph.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Said } from '../../parts/Said.tsx';
import { askedOf, dropSearch, handOverSearch, START, startSearch, useSearches } from '../../state/find.ts';
import { newId } from '../../state/identifier.ts';
import { useSaid } from '../../state/said.ts';
import { useEdits, useShelf } from '../../state/shelf.ts';
import { CaseFields, CaseSketch, hasFields, type Change } from '../brief/case-parts.tsx';
import { Advice, AimText, namesOf, There } from '../line/found.tsx';
import { DrawerDetails } from '../shop/Drawer.tsx';

/** Time after the last change at which the search begins anew, ms. */
const REST = 500;
/** Lines that are laid beside the form. */
const BESIDE = 7;
const SHOWN_AIMS: readonly Aim[] = ['money', 'mass', 'play', 'stiffness', 'efficiency'];

/** Limits that can be made a must here; the brief has all of them. */
const MUSTS = ['play', 'money', 'mass', 'size', 'length', 'bore'] as const satisfies readonly LimitId[];
const STEPS: Readonly<Record<(typeof MUSTS)[number], number>> = {
  play: Math.PI / 10800,
  money: 5,
  mass: 0.05,
  size: 0.01,
  length: 0.01,
  bore: 1e-3,
};

/** What comes first, as weights of the order. */
const FIRST: readonly { readonly value: string; readonly label: string; readonly by: Priority }[] = [
  { value: 'chance', label: 'that it surely does it', by: 'chance' },
  { value: 'money', label: 'little money', by: 'money' },
  { value: 'play', label: 'little play', by: 'play' },
  { value: 'mass', label: 'little mass', by: 'mass' },
  { value: 'stiffness', label: 'stiffness', by: 'stiffness' },
  { value: 'size', label: 'small across', by: 'size' },
  { value: 'efficiency', label: 'efficiency', by: 'efficiency' },
];

/** What counts beside what comes first. */
const BALANCED: Readonly<Partial<Record<Priority, number>>> = { chance: 1, money: 1, play: 0.5, mass: 0.5 };

const MADE = [
  { value: '', label: 'made or bought' },
  { value: 'made', label: 'made' },
  { value: 'bought', label: 'bought units' },
];

/** What the line must be in unpowered rest, as a limit on turning it back; none where either will do. */
function unpowered(of: string, hold: number, peak: number): Limit[] {
  if (of === '') return [];
  const limit = { ...blankLimit('turnBack'), need: 'must' as const };
  return [of === 'turns' ? limit : { ...limit, sense: 'min', value: Math.max(hold, 0.1 * peak) }];
}

/** One limit that can be made a must. */
function Must({
  id,
  value,
  on,
  onChange,
}: {
  id: (typeof MUSTS)[number];
  value: number;
  on: boolean;
  onChange: (on: boolean, value: number) => void;
}) {
  const { name, quantity, sense } = LIMIT_KINDS[id];
  return (
    <div className="flex items-baseline gap-2">
      <input
        type="checkbox"
        className="accent-[var(--ink)]"
        aria-label={`${name} must be kept`}
        checked={on}
        onChange={(e) => onChange(e.target.checked, value)}
      />
      <div className="min-w-0 flex-1">
        <QuantityField
          label={`${name}, at ${sense === 'max' ? 'most' : 'least'}`}
          quantity={quantity}
          value={value}
          min={0}
          step={STEPS[id]}
          onChange={(v) => onChange(true, v)}
        />
      </div>
    </div>
  );
}

/** What was found so far, to pick from. */
function Beside({
  lines,
  all,
  chosen,
  onChoose,
}: {
  lines: readonly FoundLine[];
  all: readonly FoundLine[];
  chosen: FoundLine | undefined;
  onChoose: (id: string) => void;
}) {
  const said = useSaid();
  if (lines.length === 0) return null;
  return (
    <>
      <table className="w-full text-[12.5px]" aria-label="Lines that could do it">
        <thead>
          <tr className="border-b border-strong">
            <th>line, from the motor</th>
            {SHOWN_AIMS.map((aim) => (
              <th key={aim} className="pl-2 text-right">
                {aim}
              </th>
            ))}
            <th className="pl-2 text-right">chance</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l) => (
            <tr key={l.id} className={`rule-b align-baseline ${l === chosen ? 'bg-paper' : ''}`}>
              <td className="py-[2px]">
                <label className="flex items-baseline gap-2">
                  <input
                    type="radio"
                    name="found-line"
                    className="accent-[var(--ink)]"
                    checked={l === chosen}
                    onChange={() => onChoose(l.id)}
                  />
                  <span>
                    <span className={l === chosen ? 'font-semibold' : ''}>{namesOf(l.stages)}</span>
                    <span className="label block">{l.motor.name}</span>
                  </span>
                </label>
              </td>
              {SHOWN_AIMS.map((aim) => (
                <td key={aim} className="num whitespace-nowrap pl-2 text-right">
                  <AimText line={l} aim={aim} />
                </td>
              ))}
              <td className="num pl-2 text-right">{Math.round(100 * l.chance.all)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
      {chosen ? (
        <div className="flex items-center gap-3 pt-2">
          {chosen.stages.map((s) => (
            <Glyph key={s.id} stage={s} width={58} height={48} />
          ))}
          <div>
            <p>{said(characterOf(chosen, all))}</p>
            <There line={chosen} />
          </div>
        </div>
      ) : null}
    </>
  );
}

/**
 * A guided start: what the joint must do, what matters, and beside it the lines that could do it, found anew as one types;
 * one is picked, and the joint begins with it.
 */
export default function GuidedStart({ onStart, onCancel }: { onStart: (joint: Joint) => void; onCancel: () => void }) {
  const shelf = useShelf();
  const edits = useEdits();
  const [name, setName] = useState('');
  const [missing, setMissing] = useState(false);
  const [draft] = useState(() => createJoint('New joint', { id: newId(), now: new Date().toISOString() }));
  const [c, setCase] = useState<LoadCase>(() => ({
    ...draft.brief.cases[0]!,
    ...(draft.brief.cases[0]!.pattern === 'arm' && { load: 0.8, length: 0.25, armMass: 0.2, armCentre: 0.125 }),
  }));
  const [rest, setRest] = useState('');
  const [musts, setMusts] = useState<Readonly<Partial<Record<LimitId, { on: boolean; value: number }>>>>({});
  const [first, setFirst] = useState('chance');
  const [made, setMade] = useState('');
  const [stages, setStages] = useState(2);
  const [chosenId, setChosen] = useState<string>();
  const g = factor(shelf, 'gravity');
  const loads = caseLoads(c, g);
  const change: Change = (part) => {
    const tried = readCase({ ...c, ...part });
    if (!tried.ok) return tried.problem;
    setCase({ ...c, ...part } as LoadCase);
    return undefined;
  };
  const brief = useMemo(() => {
    const { peak } = demandOf({ cases: [c], limits: [] }, shelf);
    const asked = (id: LimitId) => musts[id];
    const limits = [
      ...draft.brief.limits.map((l) => {
        const must = asked(l.id);
        return must?.on ? { ...blankLimit(l.id), value: must.value, need: 'must' as const } : l;
      }),
      ...MUSTS.filter((id) => asked(id)?.on && !draft.brief.limits.some((l) => l.id === id)).map((id) => ({
        ...blankLimit(id),
        value: asked(id)!.value,
        need: 'must' as const,
      })),
      ...unpowered(rest, loads.hold, peak),
    ];
    return { cases: [c], limits };
  }, [c, musts, rest, draft, shelf, loads.hold]);
  const variant = draft.variants[0]!;
  const kinds = useMemo(
    () =>
      stageKinds()
        .filter((k) => made === '' || (made === 'bought') === (k.bought === true))
        .map((k) => k.id),
    [made],
  );
  const search = useMemo(() => ({ brief, variant, edits, kinds, stages }), [brief, variant, edits, kinds, stages]);
  useEffect(() => {
    const later = setTimeout(() => void startSearch(START, search), REST);
    return () => clearTimeout(later);
  }, [search]);
  useEffect(() => () => dropSearch(START), []);
  const last = useSearches((s) => s.of[START]);
  const asked = useMemo(() => askedOf(search), [search]);
  // What was found before the last change is of another joint.
  const found = last?.asked.every((x, i) => x === asked[i]) ? last : undefined;
  const all = useMemo(() => found?.result?.lines ?? [], [found?.result]);
  const lines = useMemo(() => {
    const by = FIRST.find((f) => f.value === first)!.by;
    const order = inOrderOf(all, { ...BALANCED, [by]: 4 });
    // Unlike mechanisms beside one another: of each the first.
    return order
      .filter((l, i) => order.findIndex((o) => namesOf(o.stages) === namesOf(l.stages)) === i)
      .slice(0, BESIDE);
  }, [all, first]);
  const chosen = lines.find((l) => l.id === chosenId) ?? lines[0];
  const make = (): Joint => {
    const own: Variant = chosen
      ? {
          ...variant,
          motor: chosen.motor,
          driver: chosen.driver,
          stages: chosen.stages.map((s) => ({ ...s, id: newId() })),
        }
      : variant;
    handOverSearch(START, draft.id, search);
    return { ...draft, name: name.trim(), brief, variants: [own] };
  };
  const none = found?.result && !found.running && all.length === 0;
  return (
    <form
      aria-label="New joint"
      className="my-4 border border-strong bg-panel p-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (!name.trim()) setMissing(true);
        else onStart(make());
      }}
    >
      <div className="grid grid-cols-[300px_minmax(0,1fr)] gap-6">
        <div>
          <h2 className="text-[16px]">What must the joint do?</h2>
          <p className="label pb-1">Everything can be changed later. Any unit will do: 2 lb, 10 in, 62 °/s.</p>
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
          {missing && !name.trim() ? (
            <p role="alert" className="text-fail">
              The joint has no name. It is how you find it again. Type one.
            </p>
          ) : null}
          <ChoiceField
            label="Load"
            value={c.pattern}
            options={PATTERNS.map((p) => ({ value: p.id, label: p.name }))}
            onChange={(v) => v !== c.pattern && setCase(loadPattern(v as LoadCase['pattern']).blank(c.id) as LoadCase)}
          />
          <p className="label leading-snug">{loadPattern(c.pattern).summary}</p>
          <CaseFields c={c} group="Load" onChange={change} />
          {hasFields(c, 'Move') ? (
            <details>
              <summary className="label cursor-pointer">How it moves</summary>
              <CaseFields c={c} group="Move" onChange={change} />
            </details>
          ) : null}
          <h2 className="pt-2 text-[14px]">What matters?</h2>
          <ChoiceField
            label="First"
            value={first}
            options={FIRST.map(({ value, label }) => ({ value, label }))}
            onChange={(v) => setFirst(String(v))}
          />
          <ChoiceField
            label="Unpowered"
            value={rest}
            options={[
              { value: '', label: 'either will do' },
              { value: 'turns', label: 'must turn back by hand' },
              { value: 'holds', label: 'must hold its load' },
            ]}
            onChange={(v) => setRest(String(v))}
          />
          {MUSTS.map((id) => (
            <Must
              key={id}
              id={id}
              value={musts[id]?.value ?? askedValue(blankLimit(id), demandOf(brief, shelf))}
              on={musts[id]?.on ?? false}
              onChange={(on, value) => setMusts({ ...musts, [id]: { on, value } })}
            />
          ))}
          <ChoiceField label="Gearing" value={made} options={MADE} onChange={(v) => setMade(String(v))} />
          <ChoiceField
            label="Stages, at most"
            value={stages}
            options={[1, 2, 3].map((n) => ({ value: n, label: String(n) }))}
            onChange={(v) => setStages(Number(v))}
          />
          <DrawerDetails />
        </div>
        <div className="min-w-0">
          <div className="h-[210px]">
            <CaseSketch c={c} g={g} onChange={change} onEdit={change} disabled={false} />
          </div>
          <p>
            Asks for <QuantityText value={loads.peak} quantity="torque" /> at the peak, shock included, and{' '}
            <QuantityText value={loads.hold} quantity="torque" /> to hold.
          </p>
          <div className="flex items-baseline gap-3 pt-2">
            <h2 className="text-[14px]">Lines that could do it</h2>
            <p role="status" className="label">
              {found?.running
                ? found.result
                  ? 'Looking further…'
                  : 'Looking…'
                : found?.result
                  ? `${all.length} found${all.length > lines.length ? `, ${lines.length} shown` : ''}.`
                  : ''}
            </p>
            <span className="ml-auto flex items-baseline gap-2">
              {chosen ? null : (
                <span className="label">
                  {found?.running ? 'Wait for the first lines, or' : 'Stages can be added in the Line:'}
                </span>
              )}
              <button type="submit" className="btn">
                {chosen ? 'Make this joint' : 'Make it without stages'}
              </button>
              <button type="button" className="btn-quiet" onClick={onCancel}>
                Cancel
              </button>
            </span>
          </div>
          {found?.problem ? <ProblemNote problem={found.problem} /> : null}
          <Beside lines={lines} all={all} chosen={chosen} onChoose={setChosen} />
          {none ? (
            <ProblemNote
              problem={{
                what: 'No line that was put together meets every must.',
                why: 'Below stands what stops the nearest of each kind.',
                mend: 'Ask for less in what it names, allow a stage more, or begin without stages and look further there.',
              }}
            />
          ) : null}
          {found?.result && !found.running ? (
            <>
              <Advice lines={all} />
              {found.result.whyNot.length ? (
                <details className="pt-1 text-[13px]" open={none}>
                  <summary className="label cursor-pointer">Why not the others</summary>
                  <ul>
                    {found.result.whyNot.map((w) => (
                      <li key={w.kind}>
                        <Said>{whyNotSays(w)}</Said>
                      </li>
                    ))}
                  </ul>
                </details>
              ) : null}
            </>
          ) : null}
        </div>
      </div>
    </form>
  );
}
