import { createJoint, type Joint, type Problem } from '@gristmill/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Fragment, Suspense, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useActions, type Action } from '../../app/actions.ts';
import { useCommonActions } from '../../app/common.ts';
import { download } from '../../app/download.ts';
import { copyOf, exportStored } from '../../app/joints.ts';
import { usePalette } from '../../app/all-actions.ts';
import { useTitle } from '../../app/title.ts';
import { Boundary } from '../../parts/Boundary.tsx';
import { useGrowing } from '../../parts/Later.tsx';
import { Menu } from '../../parts/Menu.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { slug } from '../../state/address.ts';
import { newId } from '../../state/identifier.ts';
import { kindsKnown } from '../../state/kinds.ts';
import { useOpen } from '../../state/open.ts';
import { readPreferences, usePrefs } from '../../state/prefs.ts';
import { useServer } from '../../state/server.ts';
import { useStorage } from '../../storage/autosave.ts';
import { BIN_MINUTES, type Binned } from '../../storage/joints.ts';
import { hear, tell } from '../../storage/messages.ts';
import { foundSets, jointShelf } from '../../storage/shelf.ts';
import { SILENCE, storageProblem } from '../../storage/trouble.ts';
import { tidyUp } from '../../storage/upkeep.ts';
import { useSilence } from '../../storage/watched.ts';
import { bundleFile } from '../../workers/files.ts';
import { changeShop, loadShop } from '../../storage/edit-shop.ts';
import { view } from '../../app/view.tsx';
import { Deleted } from './Deleted.tsx';
import { useShop } from '../../state/shop.ts';
import { exportDue, exportedNow, remindLater, useKeeping } from '../../storage/keeping.ts';
import { demoFound, demoJoints } from './demo.ts';
import { Mended } from './Mended.tsx';
import { readShelf, type OnShelf } from './read-shelf.ts';
import { onShelf, type ShelfOrder } from './shelf-order.ts';
import { ShelfTools } from './ShelfTools.tsx';
import { ImportButton } from './ImportButton.tsx';
import { BadRow, JointRow } from './rows.tsx';

/** Comes with every kind of stage, which the shelf does without. */
const GuidedStart = view(() => kindsKnown().then(() => import('./GuidedStart.tsx')));
const Welcome = view(() => kindsKnown().then(() => import('./Welcome.tsx')));
const BlankStart = view(() => import('./BlankStart.tsx'));

const ago = (days: number): string => (days < 60 ? `${Math.round(days)} days` : `${Math.round(days / 30.4)} months`);

const NO_ENTRIES: OnShelf['entries'] = [];

const counted = ({ length: n }: readonly string[]): string => (n === 1 ? 'one joint' : `${n} joints`);

/** The shelf of joints, one row each. */
export function JointsPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<Problem | undefined>();
  const [begin, setBegin] = useState<'guided' | 'blank' | undefined>();
  const guided = begin === 'guided';
  const setGuided = (on: boolean) => setBegin(on ? 'guided' : undefined);
  const [look, setLook] = useState('');
  const [order, setOrder] = useState<ShelfOrder>('opened');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const { exportedAt, remindAfter, opened, since } = usePrefs();
  const kept = useKeeping((s) => s.kept);
  useTitle();
  const [now] = useState(() => Date.now());
  const storage = useStorage((s) => s.problem);
  const joints = useQuery({ queryKey: ['joints'], queryFn: readShelf, staleTime: 0, gcTime: 0 });
  const entries = joints.data?.entries ?? NO_ENTRIES;
  const bin = joints.data?.bin ?? [];
  const silent = useSilence((s) => s.silent);
  const stopped = useServer((s) => s.stopped);
  const [busy, setBusy] = useState('');
  const [mended, setMended] = useState<{ name: string; leftOut: readonly string[] } | undefined>();
  const again = useCallback(() => client.invalidateQueries({ queryKey: ['joints'] }), [client]);
  // Another tab's saves, deletions and returns show here as they come.
  useEffect(() => hear((m) => void (m.type !== 'wanted' && m.type !== 'handed' && again())), [again]);
  useCommonActions();

  const guard = async (work: () => Promise<void>) => {
    try {
      await work();
    } catch (error) {
      setProblem(storageProblem(error));
    }
  };
  const start = (joint: Joint) =>
    guard(async () => {
      try {
        const saved = await jointShelf.save(joint, null, 'New joint');
        if (saved.state === 'refused') return setProblem(saved.problem);
      } catch (error) {
        // Without storage the joint still opens; the frame says that it lives in memory only.
        useStorage.setState({ problem: storageProblem(error) });
        useOpen.getState().load(joint);
        useOpen.getState().mark('failed');
      }
      await navigate(`/joint/${slug(joint.id)}/brief`);
    });
  const blank = () => setBegin('blank');
  const openDemo = () =>
    guard(async () => {
      const demo = await demoJoints();
      const found = await demoFound();
      for (const [i, joint] of demo.entries()) {
        const there = await jointShelf.pointer(joint.id).catch(() => null);
        if (demo.length === 1) {
          if (there) await navigate(`/joint/${slug(joint.id)}/brief`);
          else await start(joint);
        } else if (!there) {
          await jointShelf.save(joint, null, 'Demo set');
          // Lines can always be found anew: where they cannot be kept, nothing is lost.
          await foundSets.keep(joint.id, found[i]!).catch(() => undefined);
        }
      }
      // What made the demo's parts stands on the shelf as well, beside what the reader has there.
      const { edits, shelf } = useShop.getState();
      const fresh = demo.flatMap((j) => j.processes ?? []).filter((p) => !shelf.processes.some((x) => x.id === p.id));
      if (fresh.length) {
        changeShop({ ...edits, processes: [...(edits.processes ?? []), ...fresh] });
        await loadShop();
      }
      await again();
    });
  const actions = useMemo<Action[]>(
    () => [
      { id: 'new-guided', name: 'New joint, guided', group: 'Joints', key: 'n', run: () => setGuided(true) },
      { id: 'new-blank', name: 'New joint, blank', group: 'Joints', run: blank },
      { id: 'import', name: 'Import a joint file', group: 'Joints', key: 'i', run: () => file.current?.click() },
      { id: 'demo', name: 'Open the demo set', group: 'Joints', key: 'd', run: () => void openDemo() },
      {
        id: 'everything',
        name: 'Export everything, earlier saves too',
        group: 'Joints',
        run: () => void everything(true),
      },
      {
        id: 'everything-now',
        name: 'Export everything as it is now',
        group: 'Joints',
        run: () => void everything(false),
      },
      { id: 'shop', name: 'Go to the shop', group: 'Joints', key: '7', run: () => void navigate('/shop') },
    ],
    // The functions close over nothing that changes but the router.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [navigate],
  );
  useActions('joints', actions);

  const bring = async (files: Iterable<File> | null) => {
    setProblem(undefined);
    const all = [...(files ?? [])];
    for (const f of all) {
      await guard(async () => {
        const [{ bringOne }, { rememberFile }] = await Promise.all([
          import('../../app/bring-files.ts'),
          import('../../app/own-files.ts'),
        ]);
        const taken = await bringOne(f, setBusy);
        if ('joints' in taken) return rememberFile(taken.joints, f, (f as { handle?: unknown }).handle);
        const { problem: p } = taken;
        setProblem(all.length > 1 ? { ...p, what: `“${f.name.slice(0, 60)}”: ${p.what}` } : p);
      });
    }
    if (file.current) file.current.value = '';
    await again();
  };
  const everything = (history: boolean) =>
    guard(async () => {
      setBusy('Packing everything…');
      try {
        const preferences = readPreferences();
        const blob = await bundleFile({ history, everything: true, preferences }, (share) =>
          setBusy(`Packing everything… ${Math.round(share * 100)} %`),
        );
        download('everything.gristmill.zip', blob, 'application/zip');
        exportedNow();
      } finally {
        setBusy('');
      }
    });
  const rename = (id: string, name: string) =>
    guard(async () => {
      // On the newest save, which may not be the one this page shows.
      const renamed = await jointShelf.change(id, `Rename to ${name}`, (j) => ({
        ...j,
        name,
        changed: new Date().toISOString(),
      }));
      if (!renamed.ok) setProblem(renamed.problem);
      else tell({ type: 'saved', id, rev: '' });
      await again();
    });
  const duplicate = (id: string) =>
    guard(async () => {
      const read = await jointShelf.open(id);
      const saved = read.ok
        ? await jointShelf.save(
            copyOf(read.value.joint, `${read.value.joint.name.slice(0, 115)} copy`),
            null,
            'Duplicate',
          )
        : undefined;
      if (!read.ok) setProblem(read.problem);
      else if (saved?.state === 'refused') setProblem(saved.problem);
      await again();
    });
  const back = (id: string, name: string) =>
    guard(async () => {
      const outcome = await jointShelf.restore(id);
      if (outcome === 'back') tell({ type: 'restored', id });
      else
        toast(
          outcome === 'there already'
            ? `“${name}” is on the shelf already: another tab put it back.`
            : `“${name}” cannot be brought back any more: it was deleted for good.`,
        );
      await again();
    });
  const remove = (id: string, name: string) =>
    guard(async () => {
      const binned = await jointShelf.remove(id);
      if (binned) tell({ type: 'deleted', id });
      await again();
      toast(`Deleted “${name}”. It can be brought back for ${BIN_MINUTES} minutes.`, {
        duration: 12_000,
        action: { label: 'Undo', onClick: () => void back(id, name) },
      });
    });
  const several = (ids: readonly string[]) => ({
    exported: () =>
      guard(async () => {
        setBusy(`Packing ${counted(ids)}…`);
        try {
          const blob = await bundleFile({ history: false, everything: false, only: ids }, (share) =>
            setBusy(`Packing ${counted(ids)}… ${Math.round(share * 100)} %`),
          );
          download(`${ids.length}-joints.gristmill.zip`, blob, 'application/zip');
        } finally {
          setBusy('');
        }
      }),
    removed: () =>
      guard(async () => {
        for (const id of ids) if (await jointShelf.remove(id)) tell({ type: 'deleted', id });
        setChosen(new Set());
        await again();
        toast(`Deleted ${counted(ids)}. What was deleted can be brought back for ${BIN_MINUTES} minutes.`, {
          duration: 12_000,
          action: {
            label: 'Undo',
            onClick: () =>
              void guard(async () => {
                for (const id of ids) if ((await jointShelf.restore(id)) === 'back') tell({ type: 'restored', id });
                await again();
              }),
          },
        });
      }),
  });
  const forGood = (b: Binned) =>
    guard(async () => {
      await tidyUp(b.pointer.id);
      await again();
      toast(`“${b.pointer.name}” is deleted for good, with its earlier saves and recordings.`);
    });
  const repair = (id: string, name: string) =>
    guard(async () => {
      const { repairStored } = await import('./repair.ts');
      const repaired = await repairStored(id);
      if (repaired.ok) setMended({ name: repaired.value.joint.name, leftOut: repaired.value.leftOut });
      else setProblem({ ...repaired.problem, what: `“${name}”: ${repaired.problem.what}` });
      await again();
    });

  const shown = useMemo(() => onShelf(entries, look, order, opened), [entries, look, order, opened]);
  // A screenful at once, the others a few a frame.
  const grown = useGrowing(shown.length, 16);
  const picked = shown.filter((e) => chosen.has(e.id)).map((e) => e.id);
  const due = exportDue(
    entries.flatMap((e) => (e.joint ? [{ id: e.id, changed: e.joint.changed }] : [])),
    { exportedAt, remindAfter, since },
    now,
  );
  return (
    <div className="mx-auto flex min-h-full max-w-[1240px] flex-col px-8 py-6 max-sm:px-3">
      <header className="flex flex-wrap items-end justify-between gap-y-2 border-b border-strong pb-3">
        <div>
          <h1 className="text-[26px] leading-none">Gristmill</h1>
          <p className="label pt-1.5">From what a joint must do to a reducer that does it, and back from the bench.</p>
        </div>
        <div className="flex flex-wrap items-center gap-2">
          <button type="button" className="btn" onClick={() => setGuided(true)}>
            New joint
          </button>
          <button type="button" className="btn" onClick={blank}>
            Blank joint
          </button>
          <ImportButton onPlain={() => file.current?.click()} onFiles={(files) => void bring(files)} />
          <Menu
            name="Everything"
            className="btn-quiet"
            disabled={busy !== ''}
            entries={[
              { label: 'Export everything, earlier saves too', run: () => void everything(true) },
              { label: 'Export everything as it is now', run: () => void everything(false) },
            ]}
          />
          <Link className="btn-quiet" to="/shop">
            Shop
          </Link>
          <Link className="btn-quiet" to="/help">
            Help
          </Link>
          <button type="button" className="btn-quiet" onClick={() => usePalette.getState().set(true)}>
            All actions
          </button>
          <input
            ref={file}
            type="file"
            multiple
            accept=".json,.zip,application/json,application/zip"
            className="sr-only"
            aria-label="Joint file to import"
            tabIndex={-1}
            onChange={(e) => void bring(e.target.files)}
          />
        </div>
      </header>
      <main className="flex-1 pt-2">
        <h2 className="sr-only">Joints</h2>
        {problem ? (
          <div className="py-2">
            <ProblemNote problem={problem} />
          </div>
        ) : null}
        {storage || joints.error || silent ? (
          <div className="py-2">
            <ProblemNote problem={storage ?? (joints.error ? storageProblem(joints.error) : SILENCE)} />
          </div>
        ) : null}
        {stopped ? (
          <p role="status" className="my-2 border-l-3 border-near bg-panel px-3 py-2">
            The server that Gristmill came from has stopped. Joints are stored in this browser and are safe; start it
            again with <span className="num">npm run demo</span>, and what has not been loaded yet comes by itself.
          </p>
        ) : null}
        {begin === 'blank' ? (
          <Suspense fallback={null}>
            <BlankStart
              onCancel={() => setBegin(undefined)}
              onStart={(name) => void start(createJoint(name, { id: newId(), now: new Date().toISOString() }))}
            />
          </Suspense>
        ) : null}
        {guided ? (
          <Suspense fallback={null}>
            <GuidedStart onCancel={() => setGuided(false)} onStart={(joint) => void start(joint)} />
          </Suspense>
        ) : null}
        {mended ? <Mended name={mended.name} leftOut={mended.leftOut} onClose={() => setMended(undefined)} /> : null}
        {busy ? (
          <p role="status" className="py-2">
            {busy}
          </p>
        ) : null}
        {due ? (
          <p
            role="status"
            className="my-2 flex flex-wrap items-center gap-3 border-l-3 border-near bg-panel px-3 py-1.5"
          >
            <span className="min-w-0 flex-1">
              {due.joints === 1 ? 'One joint has' : `${due.joints} joints have`} changed since{' '}
              {Number.isFinite(due.days)
                ? `everything was last exported, ${ago(due.days)} ago`
                : 'they were made, and nothing has been exported from here'}
              . They are in this browser only.
            </span>
            <button type="button" className="btn" onClick={() => void everything(true)}>
              Export everything
            </button>
            <button type="button" className="btn-quiet" onClick={() => remindLater()}>
              In a week
            </button>
          </p>
        ) : null}
        {entries.length > 1 ? (
          <ShelfTools
            {...{ look, order }}
            shown={shown.length}
            all={entries.length}
            chosen={picked.length}
            onLook={setLook}
            onOrder={setOrder}
            onAll={(on) => setChosen(new Set(on ? shown.map((e) => e.id) : []))}
            onExport={() => void several(picked).exported()}
            onDelete={() => void several(picked).removed()}
          />
        ) : null}
        <ul aria-label="Joints">
          {shown.slice(0, grown).map((e) => {
            const bad = (problem: Problem) => (
              <BadRow
                id={e.id}
                name={e.name}
                problem={problem}
                onRepair={() => void repair(e.id, e.name)}
                onDelete={() => void remove(e.id, e.name)}
              />
            );
            if (!e.joint) return <Fragment key={e.id}>{bad(e.problem!)}</Fragment>;
            return (
              <Boundary
                key={e.id}
                of={e.joint}
                instead={(why) =>
                  bad({
                    what: 'Its row failed.',
                    why: `The fault is Gristmill’s: ${why}.`,
                    mend: 'Export it and go on with a repaired one, or open it and undo its last change.',
                  })
                }
              >
                <JointRow
                  joint={e.joint}
                  opened={opened[e.id]}
                  chosen={entries.length > 1 ? chosen.has(e.id) : undefined}
                  onChoose={(on) => setChosen(new Set([...chosen].filter((id) => id !== e.id).concat(on ? e.id : [])))}
                  onRename={(name) => void rename(e.id, name)}
                  onDuplicate={() => void duplicate(e.id)}
                  onExport={() => void guard(async () => setProblem(await exportStored(e.id)))}
                  onDelete={() => void remove(e.id, e.name)}
                />
              </Boundary>
            );
          })}
        </ul>
        {bin.length ? (
          <Deleted
            bin={bin}
            onBack={(b) => void back(b.pointer.id, b.pointer.name)}
            onForGood={(b) => void forGood(b)}
          />
        ) : null}
        {entries.length > 0 && shown.length === 0 ? (
          <p className="label py-4">No joint has that in its name, stages or motor.</p>
        ) : null}
        {joints.isSuccess && entries.length === 0 && !begin ? (
          <Suspense fallback={null}>
            <Welcome
              onDemo={() => void openDemo()}
              onNew={() => setGuided(true)}
              onTour={() => void import('../tour/state.ts').then((m) => m.startTour(navigate))}
            />
          </Suspense>
        ) : null}
      </main>
      <footer className="label border-t border-rule pt-2">
        Joints live in this browser
        {kept === true
          ? ', which has promised to keep them'
          : kept === false
            ? ', which may clear them when the disk runs short'
            : ''}
        ; export them to keep them elsewhere (<Link to="/help/about">how they are kept</Link>). Gristmill’s figures are
        estimates, not certification: machines that carry people or could fall on them need local codes and a licensed
        engineer.
      </footer>
    </div>
  );
}
