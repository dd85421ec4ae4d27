import {
  beltKey,
  formatQuantity,
  stageKinds,
  usualMaterials,
  type Drawer as Owned,
  type Stocked,
} from '@gristmill/core';
import { useState } from 'react';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { useUnits } from '../../state/prefs.ts';
import { useShop } from '../../state/shop.ts';
import { changeShop } from '../../storage/edit-shop.ts';

type ShelfName = Stocked['shelf'];
const OF: Readonly<Record<ShelfName, string>> = { motors: 'motor', bearings: 'bearing', belts: 'closed belt' };

const change = (drawer: Owned): void => void changeShop({ ...useShop.getState().edits, drawer });

/** Puts so many of a thing into the drawer; none takes it out. */
function put(drawer: Owned, shelf: ShelfName, id: string, count: number): void {
  const { [id]: _, ...rest } = drawer[shelf] ?? {};
  change({ ...drawer, [shelf]: count > 0 ? { ...rest, [id]: count } : rest });
}

/** A closed belt by section, teeth and width. */
function BeltAdder({ drawer }: { drawer: Owned }) {
  const { sections } = useShop((s) => s.shelf);
  const units = useUnits();
  const [of, setOf] = useState(sections[0]!);
  const [teeth, setTeeth] = useState(of.stock[0] ?? 100);
  const [width, setWidth] = useState(of.widths[0]!);
  return (
    <div className="flex flex-wrap items-baseline gap-x-3">
      <ChoiceField
        label="Belt"
        value={of.id}
        options={sections.map((s) => ({ value: s.id, label: s.name }))}
        onChange={(v) => {
          const next = sections.find((s) => s.id === v)!;
          setOf(next);
          setWidth(next.widths[0]!);
        }}
      />
      <ChoiceField
        label="wide"
        value={width}
        options={of.widths.map((w) => ({ value: w, label: formatQuantity(w, 'length', units, 3) }))}
        onChange={(v) => setWidth(Number(v))}
      />
      <QuantityField
        label="teeth"
        quantity="count"
        value={teeth}
        min={10}
        max={5000}
        step={1}
        whole
        onChange={setTeeth}
      />
      <button
        type="button"
        className="btn-quiet"
        onClick={() => {
          const id = beltKey(of.id, teeth, width);
          put(drawer, 'belts', id, (drawer.belts?.[id] ?? 0) + 1);
        }}
      >
        Put in
      </button>
    </div>
  );
}

/** What is there already, and how many; and what stages are made of. */
export function Drawer() {
  const { shelf, edits } = useShop();
  const units = useUnits();
  const drawer = edits.drawer ?? {};
  const beltName = (id: string): string => {
    const [section = '', teeth, width] = id.split(' ');
    const name = shelf.sections.find((s) => s.id === section)?.name ?? section;
    return `${name}, ${teeth} teeth, ${formatQuantity(Number(width) / 1e3, 'length', units, 3)} wide`;
  };
  const nameOf = (of: ShelfName, id: string): string =>
    of === 'belts' ? beltName(id) : (shelf[of].find((x) => x.id === id)?.name ?? `${id}, no longer in the shop`);
  const rows = (['motors', 'bearings', 'belts'] as const).flatMap((of) =>
    Object.entries(drawer[of] ?? {}).map(([id, count]) => ({ of, id, count, name: nameOf(of, id) })),
  );
  const adder = (of: 'motors' | 'bearings') => (
    <ChoiceField
      label={`Put in a ${OF[of]}`}
      hideLabel
      value=""
      options={[
        { value: '', label: `Put in a ${OF[of]}…` },
        ...shelf[of].filter((x) => !drawer[of]?.[x.id]).map((x) => ({ value: x.id, label: x.name })),
      ]}
      onChange={(v) => v !== '' && put(drawer, of, String(v), 1)}
    />
  );
  const { materials } = drawer;
  const making = shelf.materials.filter((m) => m.made !== 'bought');
  return (
    <div className="max-w-[760px] pb-6">
      <section aria-label="In the drawer" className="pb-4">
        <h2 className="border-b border-strong pb-1">
          In the drawer{' '}
          <span className="label font-normal">a search counts what is there as paid for, and so prefers it</span>
        </h2>
        {rows.map((r) => (
          <div key={`${r.of} ${r.id}`} className="rule-b flex items-baseline gap-3">
            <span className="min-w-0 flex-1">
              {r.name} <span className="label">{OF[r.of]}</span>
            </span>
            <span className="w-[90px]">
              <QuantityField
                label={`${r.name}, how many`}
                hideLabel
                quantity="count"
                value={r.count}
                min={0}
                max={1e6}
                step={1}
                whole
                onChange={(n) => put(drawer, r.of, r.id, n)}
              />
            </span>
            <button
              type="button"
              className="btn-quiet"
              aria-label={`Take out ${r.name}`}
              onClick={() => put(drawer, r.of, r.id, 0)}
            >
              Take out
            </button>
          </div>
        ))}
        <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pt-1">
          {adder('motors')}
          {adder('bearings')}
          <BeltAdder drawer={drawer} />
        </div>
      </section>
      <section aria-label="What stages are made of">
        <h2 className="border-b border-strong pb-1">
          What stages are made of{' '}
          <span className="label font-normal">in a search; each that is printed gives lines of its own</span>
        </h2>
        <ChoiceField
          label="A search makes stages of"
          value={materials ? 'these' : 'usual'}
          options={[
            { value: 'usual', label: 'what each kind is usually made of' },
            { value: 'these', label: 'the materials marked' },
          ]}
          onChange={(v) => {
            const { materials: _, ...rest } = drawer;
            change(v === 'these' ? { ...rest, materials: usualMaterials(stageKinds(), shelf.materials) } : rest);
          }}
        />
        {materials
          ? (['printed', 'milled'] as const).map((made) => (
              <fieldset key={made} className="flex flex-wrap gap-x-4 pt-1">
                <legend className="label">{made}</legend>
                {making
                  .filter((m) => m.made === made)
                  .map((m) => (
                    <label key={m.id} className="flex items-baseline gap-1 text-[13px]">
                      <input
                        type="checkbox"
                        className="accent-[var(--ink)]"
                        checked={materials.includes(m.id)}
                        onChange={(e) =>
                          change({
                            ...drawer,
                            materials: e.target.checked ? [...materials, m.id] : materials.filter((x) => x !== m.id),
                          })
                        }
                      />
                      {m.name}
                    </label>
                  ))}
              </fieldset>
            ))
          : null}
      </section>
    </div>
  );
}

/** The drawer in a line, to be opened where lines are looked for. */
export function DrawerDetails() {
  const drawer = useShop((s) => s.edits.drawer);
  const count = (of: ShelfName) => Object.values(drawer?.[of] ?? {}).reduce((s, n) => s + n, 0);
  const some = (['motors', 'bearings', 'belts'] as const).flatMap((of) => {
    const n = count(of);
    return n > 0 ? [`${n} ${OF[of]}${n > 1 ? 's' : ''}`] : [];
  });
  const of = drawer?.materials;
  return (
    <details>
      <summary className="label cursor-pointer">
        {some.length ? `${some.join(', ')} in the drawer` : 'nothing in the drawer'};{' '}
        {of ? `made of ${of.length} material${of.length === 1 ? '' : 's'}` : 'of usual materials'}
      </summary>
      <div className="py-2">
        <Drawer />
      </div>
    </details>
  );
}
