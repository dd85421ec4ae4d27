import { formatQuantity, type SectionSheet, type SheetRegion, type SheetRoom } from '@gristmill/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { ChoiceField } from '../../../parts/ChoiceField.tsx';
import { CheckList } from '../../../parts/CheckList.tsx';
import { ProblemNote } from '../../../parts/ProblemNote.tsx';
import { Said } from '../../../parts/Said.tsx';
import { Section } from '../../../parts/Section.tsx';
import { slug } from '../../../state/address.ts';
import { useCrank } from '../../../state/crank.ts';
import { editVariant, useJoint, useOpen, useVariant } from '../../../state/open.ts';
import { useUnits } from '../../../state/prefs.ts';
import { useSectionSheet } from '../../../workers/queries.ts';
import { mendLine } from '../../line/LineChecks.tsx';
import { QuantityField } from '../../../parts/QuantityField.tsx';
import { HousingFields } from './HousingFields.tsx';
import { SectionDrawing, type Handle } from './SectionDrawing.tsx';
import { Panes } from '../../../parts/Panes.tsx';

/** Rooms that are listed at most. */
const LISTED = 6;
/** The crank is followed in steps of so much, rad: a finer one could not be told apart. */
const STEP = Math.PI / 90;
/** What is dragged is rounded to this, m. */
const GRID = 1e-4;

const rounded = (x: number, least: number, most: number): number =>
  Math.min(most, Math.max(least, Math.round(x / GRID) * GRID));

/** What may be dragged of a housing: its outermost wall, and the cover’s face where its plates are no thicker than asked. */
function handlesOf(sheet: SectionSheet, wall: number, plate: number): Handle[] {
  const cover = sheet.plates.at(-1);
  const walls = sheet.regions.filter((r) => /^case\/(wall|post)/.test(r.id)).at(-1);
  if (!cover) return [];
  const out: Handle[] = [];
  const region = sheet.regions.find((r) => r.id === 'case/cover') ?? walls;
  let u = 0;
  for (const r of region ? [region] : []) for (let i = 0; i < r.rects.length; i += 4) u = Math.max(u, r.rects[i + 2]!);
  const thick = cover.to - cover.from;
  if (Math.abs(thick - plate) < 1e-9)
    out.push({
      key: 'plate',
      label: 'Plates',
      u: u * 0.72,
      z: cover.to,
      along: 'z',
      valueAt: (z) => rounded(z - cover.from, 1e-3, 0.05),
    });
  if (walls) {
    let outer = -Infinity;
    let z = 0;
    for (let i = 0; i < walls.rects.length; i += 4)
      if (walls.rects[i + 2]! > outer) {
        outer = walls.rects[i + 2]!;
        z = (walls.rects[i + 1]! + walls.rects[i + 3]!) / 2;
      }
    if (walls.id.includes('wall') && outer > 0)
      out.push({
        key: 'wall',
        label: 'Walls',
        u: outer,
        z,
        along: 'u',
        valueAt: (place) => rounded(wall + place - outer, 8e-4, 0.05),
      });
  }
  return out;
}

/** What is known of one part of the section. */
function Picked({ region, jointId }: { region: SheetRegion; jointId: string }) {
  const units = useUnits();
  const speed = !Number.isFinite(region.speed)
    ? 'goes round between others'
    : region.speed === 0
      ? 'stands still'
      : region.speed === 1
        ? 'turns with the motor'
        : `turns once in ${Math.abs(1 / region.speed)
            .toPrecision(5)
            .replace(/\.?0+$/, '')} turns of the motor${region.speed < 0 ? ', the other way' : ''}`;
  const rows = [
    ['Pieces', String(region.quantity)],
    ['Made of', region.material],
    ['Moves', speed],
    ...(region.mass > 0 ? [['Mass, one', formatQuantity(region.mass, 'mass', { mass: 'g', ...units }, 3)]] : []),
    ...(region.money > 0 ? [['Money, one', formatQuantity(region.money, 'money', units, 3)]] : []),
  ];
  return (
    <Section title={region.name}>
      <dl className="grid grid-cols-[80px_minmax(0,1fr)] gap-x-2" data-picked={region.id}>
        {rows.map(([k, v]) => (
          <div key={k} className="contents">
            <dt className="label">{k}</dt>
            <dd className="num text-right">{v}</dd>
          </div>
        ))}
      </dl>
      {region.note ? (
        <p className="label">
          <Said>{region.note}</Said>
        </p>
      ) : null}
      {region.turnedIn ? <p className="label">It stands beside the plane and is shown turned into it.</p> : null}
      {region.stage >= 0 ? (
        <Link className="mend" to={`/joint/${slug(jointId)}/stage/${region.stage + 1}`}>
          Its dimensions, in Stage {region.stage + 1}
        </Link>
      ) : null}
    </Section>
  );
}

/** Where the centre of mass lies: along the axis from the motor’s end of what is housed, and off the output’s axis. */
function Centre({ sheet }: { sheet: SectionSheet }) {
  const units = useUnits();
  const say = (x: number) => formatQuantity(x, 'length', units, 3);
  const { mass, centre } = sheet.balance;
  const off = Math.hypot(centre[0], centre[1]);
  const from = sheet.envelope?.from ?? sheet.bounds.z0;
  return (
    <span className="block whitespace-nowrap" data-centre="" title="Of what is drawn: without driver and cables">
      {formatQuantity(mass, 'mass', units, 3)}, centre {say(centre[2] - from)} from the motor’s end, {say(off)} off axis
    </span>
  );
}

/** How stages stand turned about their inputs: beside stages may lead anywhere round them. */
function Turns({ sheet }: { sheet: SectionSheet }) {
  const variant = useVariant();
  const readOnly = useOpen((s) => s.readOnly);
  if (variant.stages.length < 2) return null;
  return (
    <Section title="Where stages stand" aside="turned about their inputs">
      {variant.stages.map((s, i) => (
        <div key={s.id} className="flex items-baseline gap-2">
          <div className="min-w-0 flex-1">
            <QuantityField
              label={`Stage ${i + 1}, turned`}
              quantity="angle"
              value={s.turn ?? sheet.turns[i] ?? 0}
              min={-7}
              max={7}
              step={Math.PI / 12}
              disabled={readOnly}
              help="Left alone, a stage beside the one before it folds back over it."
              onChange={(turn) => editVariant(`Turn of stage ${i + 1}`, (v) => void (v.stages[i]!.turn = turn))}
            />
          </div>
          {s.turn === undefined ? null : (
            <button
              type="button"
              className="mend"
              disabled={readOnly}
              aria-label={`Stage ${i + 1} as usual`}
              onClick={() => editVariant(`Turn of stage ${i + 1} as usual`, (v) => void delete v.stages[i]!.turn)}
            >
              as usual
            </button>
          )}
        </div>
      ))}
    </Section>
  );
}

function Rooms({
  sheet,
  asked,
  onAsk,
}: {
  sheet: SectionSheet;
  asked: SheetRoom | undefined;
  onAsk: (room: SheetRoom | undefined) => void;
}) {
  const units = useUnits();
  const name = (id: string) => sheet.regions.find((r) => r.id === id)?.name ?? id;
  if (sheet.rooms.length === 0) return null;
  return (
    <Section title="Room between what turns unlike" aside="least first">
      <ul>
        {sheet.rooms.slice(0, LISTED).map((r) => (
          <li key={`${r.a} ${r.b}`}>
            <button
              type="button"
              aria-pressed={asked === r}
              className={`flex w-full justify-between gap-2 text-left hover:bg-expected-soft ${asked === r ? 'bg-expected-soft' : ''}`}
              onClick={() => onAsk(asked === r ? undefined : r)}
            >
              <span className="min-w-0">
                {name(r.a)} – {name(r.b)}
              </span>
              <span className="num whitespace-nowrap">{formatQuantity(r.distance, 'length', units, 3)}</span>
            </button>
          </li>
        ))}
      </ul>
    </Section>
  );
}

/** The whole reducer along its axis: live, to scale, every part with its figures, the housing beside it. */
export default function SectionView() {
  const joint = useJoint();
  const variant = useVariant();
  const readOnly = useOpen((s) => s.readOnly);
  const crank = useCrank((s) => Math.round(s.angle / STEP) * STEP);
  const { sheet, error } = useSectionSheet(crank);
  const [picked, setPicked] = useState<string | undefined>();
  const [room, setRoom] = useState<SheetRoom | undefined>();
  const units = useUnits();
  const made = sheet?.ok ? sheet.value : undefined;
  const h = variant.housing;
  const handles = useMemo(
    () => (made && h?.by === 'here' && !readOnly ? handlesOf(made, h.wall, h.plate) : []),
    [made, h, readOnly],
  );
  const region = made?.regions.find((r) => r.id === picked);
  const across = made?.envelope?.across;
  return (
    <Panes
      id="section"
      name="the housing’s fields"
      width={300}
      plain="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_300px]"
      pane={
        <div
          className="min-h-0 space-y-2 overflow-y-auto  bg-panel px-4 pt-3"
          tabIndex={0}
          role="region"
          aria-label="Section: parts and housing"
        >
          {made ? (
            <ChoiceField
              label="Part"
              value={region?.id ?? ''}
              options={[
                { value: '', label: 'none picked out' },
                ...made.regions.map((r) => ({
                  value: r.id,
                  label: `${r.name}${r.stage >= 0 ? `, stage ${r.stage + 1}` : ''}`,
                })),
              ]}
              onChange={(id) => setPicked(id === '' ? undefined : String(id))}
            />
          ) : null}
          {region ? <Picked region={region} jointId={joint.id} /> : null}
          <Section title="Housing">
            <HousingFields />
            {made && variant.housing?.by === 'here' && made.plates.length === 0 && made.unhoused.length === 0 ? (
              <p className="label" data-nothing-to-house="">
                There is nothing to make round it: what is bought as a unit brings its own housing.
              </p>
            ) : null}
            {made?.unhoused.length ? (
              <p className="label">
                Round stage {made.unhoused.map((i) => i + 1).join(', ')} none is made here: it goes across behind
                another, runs straight, swings in its mesh, has no bodies, or another such stage stands between. Give it
                your own.
              </p>
            ) : null}
          </Section>
          {made ? <Turns sheet={made} /> : null}
          {made?.checks.length ? <CheckList checks={made.checks} figures={[]} stageId="" onMend={mendLine} /> : null}
          {made ? <Rooms sheet={made} asked={room} onAsk={setRoom} /> : null}
          <p className="caution">
            Press, do not hammer; support the ring being pressed. Covers keep fingers from what turns: a joint that
            carries or could fall on people needs local codes and licensed practice.
          </p>
        </div>
      }
    >
      <div className="flex min-h-0 min-w-0 flex-col px-4 pt-2">
        {made ? null : <h1 className="text-[15px]">Section</h1>}
        {sheet && !sheet.ok ? (
          <ProblemNote problem={sheet.problem} />
        ) : error ? (
          <p role="alert">The section could not be made: {error.message}. Change something, or reload the page.</p>
        ) : made ? (
          <>
            <div className="flex items-baseline justify-between gap-3">
              <h1 className="text-[15px]">Section</h1>
              <span className="label num shrink-0 text-right">
                {made.envelope && across ? (
                  <span className="block whitespace-nowrap" data-envelope="">
                    {formatQuantity(made.envelope.to - made.envelope.from, 'length', units, 4)} long,{' '}
                    {formatQuantity(across[0], 'length', units, 4)} × {formatQuantity(across[1], 'length', units, 4)}{' '}
                    across
                  </span>
                ) : null}
                {made.balance.mass > 0 ? <Centre sheet={made} /> : null}
              </span>
            </div>
            <p className="label">
              through {variant.stages.length > 1 ? 'all axes' : 'the axis'}, motor to the left; teeth to their tips,
              dashed what is turned into the plane
            </p>
            <div className="min-h-0 flex-1">
              <SectionDrawing
                sheet={made}
                name={`${joint.name}, variant ${variant.name}`}
                picked={picked}
                onPick={setPicked}
                room={room && made.rooms.find((r) => r.a === room.a && r.b === room.b)}
                handles={handles}
                onDrag={(handle, value) => {
                  if (!Number.isFinite(value)) return void toast('That is no length.');
                  editVariant(
                    `Housing: ${handle.label.toLowerCase()} dragged`,
                    (v) => void Object.assign(v.housing!, { [handle.key]: value }),
                  );
                }}
              />
            </div>
          </>
        ) : (
          <p className="label" role="status">
            Cutting…
          </p>
        )}
      </div>
    </Panes>
  );
}
