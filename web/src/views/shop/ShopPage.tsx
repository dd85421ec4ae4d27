import { writeShopFile, type Problem, type ShopEdits } from '@gristmill/core';
import { Tabs } from 'radix-ui';
import { useRef, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { useCommonActions } from '../../app/common.ts';
import { download } from '../../app/download.ts';
import { useTitle } from '../../app/title.ts';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { useShop } from '../../state/shop.ts';
import { useStorage } from '../../storage/autosave.ts';
import { Belts } from './Belts.tsx';
import { Drawer } from './Drawer.tsx';
import { bringShop } from '../../app/bring-files.ts';
import { changeShop } from '../../storage/edit-shop.ts';
import { Factors } from './Factors.tsx';
import { Instruments } from './Instruments.tsx';
import { Motors } from './Motors.tsx';
import { Processes } from './Processes.tsx';
import { Bearings, Drives, Materials } from './Things.tsx';
import { SetAside } from './SetAside.tsx';
import { Units } from './Units.tsx';

const SHELVES = [
  ['motors', 'Motors'],
  ['drives', 'Drivers and supplies'],
  ['processes', 'Processes'],
  ['materials', 'Materials'],
  ['bearings', 'Bearings'],
  ['belts', 'Belts'],
  ['instruments', 'Instruments'],
  ['factors', 'Factors'],
  ['drawer', 'Drawer'],
  ['units', 'Units'],
] as const;
type ShelfName = (typeof SHELVES)[number][0];
const VIEW = {
  motors: Motors,
  drives: Drives,
  processes: Processes,
  materials: Materials,
  bearings: Bearings,
  belts: Belts,
  instruments: Instruments,
  factors: Factors,
  drawer: Drawer,
  units: Units,
};

/** All of one shelf as a file takes it; belts and units are not the reader's to change. */
function wholeShelf(name: ShelfName): ShopEdits | undefined {
  const { shelf } = useShop.getState();
  if (name === 'factors')
    return {
      factors: Object.fromEntries(
        Object.values(shelf.factors).map((f) => [f.id, { value: f.value, low: f.low, high: f.high, source: f.source }]),
      ),
    };
  if (name === 'drives') return { drivers: shelf.drivers, supplies: shelf.supplies };
  if (name === 'drawer') return { drawer: useShop.getState().edits.drawer ?? {} };
  return name === 'belts' || name === 'units' ? undefined : { [name]: shelf[name] };
}

function Titled() {
  useTitle('Shop');
  return null;
}

/** The shelf shared by all joints. */
export default function ShopPage() {
  const { id } = useParams();
  const [params, setParams] = useSearchParams();
  const edits = useShop((s) => s.edits);
  const stored = useStorage((s) => s.problem);
  const [problem, setProblem] = useState<Problem | undefined>();
  const file = useRef<HTMLInputElement>(null);
  useCommonActions(id !== undefined);
  const shown = (SHELVES.find(([key]) => key === params.get('shelf'))?.[0] ?? 'motors') as ShelfName;
  const touched = Object.values(edits).some((x) => Object.keys(x ?? {}).length > 0);
  const bring = async (f: File | undefined) => {
    if (!f) return;
    setProblem(await bringShop(f));
    if (file.current) file.current.value = '';
  };
  // Within a joint its frame is the page, and has named it.
  const Page = id ? 'div' : 'main';
  return (
    <Page className={`relative ${id ? 'px-5 pt-3' : 'mx-auto max-w-[1240px] px-8 py-6 max-sm:px-3'}`}>
      {id ? null : <Titled />}
      <div className="flex flex-wrap items-baseline justify-between gap-2 pb-2">
        <h1 className={id ? 'text-[15px]' : 'text-[20px]'}>
          Shop <span className="label font-normal">shared by all joints; a joint keeps what it was computed with</span>
        </h1>
        <span className="flex gap-2">
          {wholeShelf(shown) ? (
            <button
              type="button"
              className="btn"
              onClick={() =>
                download(`shop-${shown}.gristmill-shop.json`, writeShopFile(wholeShelf(shown)!), 'application/json')
              }
            >
              Export this shelf
            </button>
          ) : null}
          {touched ? (
            <button
              type="button"
              className="btn"
              onClick={() => download('shop-changes.gristmill-shop.json', writeShopFile(edits), 'application/json')}
            >
              Export my changes
            </button>
          ) : null}
          <button type="button" className="btn" onClick={() => file.current?.click()}>
            Import
          </button>
          {touched ? (
            <button
              type="button"
              className="btn-quiet"
              onClick={() => {
                const before = edits;
                changeShop({});
                toast('The shop is as shipped.', { action: { label: 'Undo', onClick: () => changeShop(before) } });
              }}
            >
              Reset the shop
            </button>
          ) : null}
          {id ? null : (
            <Link className="btn-quiet" to="/">
              Back to the joints
            </Link>
          )}
          <input
            ref={file}
            type="file"
            accept=".json,application/json"
            className="sr-only"
            tabIndex={-1}
            aria-label="Shop file to import"
            onChange={(e) => void bring(e.target.files?.[0])}
          />
        </span>
      </div>
      {problem || (stored && !id) ? (
        <div className="pb-2">
          <ProblemNote problem={problem ?? stored!} />
        </div>
      ) : null}
      <SetAside />
      <Tabs.Root value={shown} onValueChange={(v) => setParams({ shelf: v }, { replace: true })}>
        <Tabs.List aria-label="Shelves" className="mb-3 flex flex-wrap gap-x-5 gap-y-1 border-b border-rule">
          {SHELVES.map(([key, name]) => (
            <Tabs.Trigger
              key={key}
              value={key}
              className="pb-1 text-muted hover:text-ink data-[state=active]:border-b-2 data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink"
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {SHELVES.map(([key]) => {
          const View = VIEW[key];
          return (
            <Tabs.Content key={key} value={key}>
              <View />
            </Tabs.Content>
          );
        })}
      </Tabs.Root>
    </Page>
  );
}
