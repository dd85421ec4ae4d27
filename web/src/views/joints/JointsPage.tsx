import { createJoint, type Joint, type Problem } from '@gristmill/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { Fragment, Suspense, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useActions, type Action } from '../../app/actions.ts';
import { useCommonActions } from '../../app/common.ts';
import { download } from '../../app/download.ts';
import { copyOf, exportStored } from '../../app/joints.ts';
import { usePalette } from '../../app/all-actions.ts';
import { Boundary } from '../../parts/Boundary.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { slug } from '../../state/address.ts';
import { newId } from '../../state/identifier.ts';
import { kindsKnown } from '../../state/kinds.ts';
import { useOpen } from '../../state/open.ts';
import { readPreferences, takePreferences } from '../../state/prefs.ts';
import { useServer } from '../../state/server.ts';
import { useStorage } from '../../storage/autosave.ts';
import { BIN_MINUTES, type Binned } from '../../storage/joints.ts';
import { hear, tell } from '../../storage/messages.ts';
import { foundSets, jointShelf } from '../../storage/shelf.ts';
import { SILENCE, storageProblem } from '../../storage/trouble.ts';
import { tidyUp } from '../../storage/upkeep.ts';
import { useSilence } from '../../storage/watched.ts';
import { bringFile, bundleFile } from '../../workers/files.ts';
import { changeShop, loadShop } from '../../storage/edit-shop.ts';
import { view } from '../../app/view.tsx';
import { Deleted } from './Deleted.tsx';
import { useShop } from '../../state/shop.ts';
import { demoFound, demoJoints } from './demo.ts';
import { Mended } from './Mended.tsx';
import { readShelf } from './read-shelf.ts';
import { BadRow, JointRow } from './rows.tsx';

/** Comes with every kind of stage, which the shelf does without. */
const GuidedStart = view(() => kindsKnown().then(() => import('./GuidedStart.tsx')));

/** The shelf of joints, one row each. */
export function JointsPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<Problem | undefined>();
  const [guided, setGuided] = useState(false);
  const storage = useStorage((s) => s.problem);
  const joints = useQuery({ queryKey: ['joints'], queryFn: readShelf, staleTime: 0, gcTime: 0 });
  const entries = joints.data?.entries ?? [];
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
  const blank = () => void start(createJoint('New joint', { id: newId(), now: new Date().toISOString() }));
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

  const bring = async (chosen: FileList | null) => {
    setProblem(undefined);
    for (const f of chosen ?? []) {
      await guard(async () => {
        const late = setTimeout(() => setBusy(`Reading “${f.name.slice(0, 60)}”…`), 400);
        try {
          const read = await bringFile(
            f,
            (share) => share < 1 && setBusy(`Reading “${f.name.slice(0, 60)}”… ${Math.round(share * 100)} %`),
          );
          if (!read.ok)
            return setProblem({
              ...read.problem,
              what: chosen!.length > 1 ? `“${f.name.slice(0, 60)}”: ${read.problem.what}` : read.problem.what,
            });
          const { joints: names, notes, preferences, shop } = read.value;
          if (preferences !== undefined) takePreferences(preferences);
          if (shop) {
            await loadShop();
            tell({ type: 'shop' });
          }
          toast(
            [
              names.length === 0
                ? 'Nothing new came in.'
                : names.length === 1
                  ? `Imported “${names[0]}”.`
                  : `Imported ${names.length} joints.`,
              ...notes,
            ].join(' '),
            notes.length ? { duration: 10_000 } : {},
          );
        } finally {
          clearTimeout(late);
          setBusy('');
        }
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

  return (
    <div
      className="mx-auto flex min-h-full max-w-[1240px] flex-col px-8 py-6"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => (e.preventDefault(), void bring(e.dataTransfer.files))}
    >
      <header className="flex items-end justify-between border-b border-strong pb-3">
        <div>
          <h1 className="text-[26px] leading-none">Gristmill</h1>
          <p className="label pt-1.5">From what a joint must do to a reducer that does it, and back from the bench.</p>
        </div>
        <div className="flex items-center gap-2">
          <button type="button" className="btn" onClick={() => setGuided(true)}>
            New joint
          </button>
          <button type="button" className="btn" onClick={blank}>
            Blank joint
          </button>
          <button type="button" className="btn" onClick={() => file.current?.click()}>
            Import
          </button>
          <DropdownMenu.Root>
            <DropdownMenu.Trigger className="btn-quiet" disabled={busy !== ''}>
              Everything
            </DropdownMenu.Trigger>
            <DropdownMenu.Portal>
              <DropdownMenu.Content align="end" className="z-20 border border-strong bg-panel py-1">
                {(
                  [
                    ['Export everything, earlier saves too', () => void everything(true)],
                    ['Export everything as it is now', () => void everything(false)],
                  ] as const
                ).map(([label, run]) => (
                  <DropdownMenu.Item
                    key={label}
                    onSelect={run}
                    className="cursor-pointer px-4 py-1 data-[highlighted]:bg-ink data-[highlighted]:text-panel"
                  >
                    {label}
                  </DropdownMenu.Item>
                ))}
              </DropdownMenu.Content>
            </DropdownMenu.Portal>
          </DropdownMenu.Root>
          <Link className="btn-quiet" to="/shop">
            Shop
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
        <ul aria-label="Joints">
          {entries.map((e) => {
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
        {joints.isSuccess && entries.length === 0 && !guided ? (
          <section className="max-w-[46rem] pt-8">
            <h2 className="text-[18px]">Nothing on the shelf yet.</h2>
            <p className="pt-2">
              A joint is one driven axis: what it must do, the motor and stages that should do it, and what the bench
              says. Begin with your own, or look round with the demo set: a made-up workshop that builds a life-size
              mechanical heron.
            </p>
            <p className="flex gap-2 pt-4">
              <button type="button" className="btn" onClick={() => void openDemo()}>
                Open the demo set
              </button>
              <button type="button" className="btn" onClick={() => setGuided(true)}>
                New joint
              </button>
            </p>
          </section>
        ) : null}
      </main>
      <footer className="label border-t border-rule pt-2">
        Joints live in this browser; export them to keep them elsewhere. Gristmill’s figures are estimates, not
        certification: machines that carry people or could fall on them need local codes and a licensed engineer.
      </footer>
    </div>
  );
}
