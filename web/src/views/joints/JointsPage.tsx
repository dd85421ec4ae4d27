import { activeVariant, createJoint, demandOf, LIMIT_KINDS, stopping, type Joint, type Problem } from '@gristmill/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { format } from 'date-fns';
import { DropdownMenu } from 'radix-ui';
import { useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useActions, type Action } from '../../app/actions.ts';
import { useCommonActions } from '../../app/common.ts';
import { copyOf, exportJoint, importJoint } from '../../app/joints.ts';
import { usePalette } from '../../app/all-actions.ts';
import { TextField } from '../../parts/ChoiceField.tsx';
import { Glyph } from '../../parts/Glyph.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityText } from '../../parts/FigureText.tsx';
import { overall } from '../../parts/words.ts';
import { newId } from '../../state/identifier.ts';
import { useOpen } from '../../state/open.ts';
import { useShelf } from '../../state/shelf.ts';
import { saveNow, useStorage } from '../../storage/autosave.ts';
import { jointShelf } from '../../storage/shelf.ts';
import { storageProblem } from '../../storage/trouble.ts';
import { useLineOf } from '../../workers/queries.ts';
import { GuidedStart } from './GuidedStart.tsx';
import { demoJoints } from './demo.ts';

type Entry = { readonly id: string; readonly name: string; readonly joint: Joint | undefined; readonly problem: Problem | undefined };

async function readShelf(): Promise<Entry[]> {
  // A joint just left may still be on its way to storage.
  await saveNow();
  const pointers = await jointShelf.list();
  return Promise.all(
    pointers.map(async (p) => {
      const read = await jointShelf.open(p.id);
      return read.ok ? { id: p.id, name: p.name, joint: read.value.joint, problem: undefined } : { id: p.id, name: p.name, joint: undefined, problem: read.problem };
    }),
  );
}

function JointRow({ joint, onRename, onDuplicate, onDelete }: { joint: Joint; onRename: (name: string) => void; onDuplicate: () => void; onDelete: () => void }) {
  const variant = activeVariant(joint);
  const report = useLineOf(joint, variant);
  const shelf = useShelf();
  const [renaming, setRenaming] = useState(false);
  const demand = useMemo(() => demandOf(joint.brief, shelf), [joint.brief, shelf]);
  const word = report ? overall(report.verdicts, report.problem !== undefined, stopping(report).length) : undefined;
  const missed = report?.verdicts.filter((v) => v.state === 'fails').map((v) => LIMIT_KINDS[v.id].name.toLowerCase()) ?? [];
  return (
    <li className="rule-b group flex items-center gap-5 py-2.5" data-joint={joint.name}>
      <Link to={`/joint/${joint.id}/brief`} tabIndex={-1} aria-hidden="true" className="flex h-[58px] w-[270px] shrink-0 items-center gap-3 overflow-hidden max-[1000px]:w-[180px]">
        {variant.stages.length ? variant.stages.slice(0, 3).map((s) => <Glyph key={s.id} stage={s} width={84} height={54} />) : <span className="label">no stages yet</span>}
      </Link>
      <div className="min-w-0 flex-1">
        {renaming ? (
          <TextField label="Name" hideLabel value={joint.name} className="w-full max-w-[26rem] text-[15px] font-semibold" autoFocus refuse={(v) => v === ''} onChange={onRename} onDone={() => setRenaming(false)} />
        ) : (
          <Link to={`/joint/${joint.id}/brief`} className="block truncate text-[15px] font-semibold hover:underline">
            {joint.name}
          </Link>
        )}
        <p className="truncate text-[12.5px] text-muted">
          lifts <QuantityText value={demand.peak} quantity="torque" /> at <QuantityText value={demand.speed} quantity="speed" /> · {joint.variants.length} variant{joint.variants.length === 1 ? '' : 's'} · {joint.builds.length} build{joint.builds.length === 1 ? '' : 's'} · {joint.tests.length} test{joint.tests.length === 1 ? '' : 's'}
        </p>
      </div>
      <div className="w-[190px] shrink-0 max-[1000px]:w-[130px]">
        <p className={word?.tone}>{word ? `${word.mark} ${word.text}` : '…'}</p>
        <p className="label truncate">{missed.join(', ')}</p>
      </div>
      <time className="num w-[110px] shrink-0 text-right text-[12px] text-muted" dateTime={joint.changed}>{format(new Date(joint.changed), 'd MMM yyyy')}</time>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="btn-quiet" aria-label={`More for ${joint.name}`}>More</DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="end" className="z-20 border border-strong bg-panel py-1">
            {([['Rename', () => setRenaming(true)], ['Duplicate', onDuplicate], ['Export to a file', () => exportJoint(joint)], ['Delete', onDelete]] as const).map(([label, run]) => (
              <DropdownMenu.Item key={label} onSelect={run} className="cursor-pointer px-4 py-1 data-[highlighted]:bg-ink data-[highlighted]:text-panel">
                {label}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </li>
  );
}

/** The shelf of joints, one row each. */
export function JointsPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<Problem | undefined>();
  const [guided, setGuided] = useState(false);
  const storage = useStorage((s) => s.problem);
  const joints = useQuery({ queryKey: ['joints'], queryFn: readShelf, staleTime: 0, gcTime: 0 });
  const entries = useMemo(() => joints.data ?? [], [joints.data]);
  const again = () => client.invalidateQueries({ queryKey: ['joints'] });
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
        await jointShelf.save(joint, null, 'New joint');
      } catch (error) {
        // Without storage the joint still opens; the frame says that it lives in memory only.
        useStorage.setState({ problem: storageProblem(error) });
        useOpen.getState().load(joint);
      }
      await navigate(`/joint/${joint.id}/brief`);
    });
  const blank = () => void start(createJoint('New joint', { id: newId(), now: new Date().toISOString() }));
  const openDemo = () =>
    guard(async () => {
      const demo = await demoJoints();
      for (const joint of demo) {
        const there = await jointShelf.pointer(joint.id).catch(() => null);
        if (demo.length === 1) {
          if (there) await navigate(`/joint/${joint.id}/brief`);
          else await start(joint);
        } else if (!there) await jointShelf.save(joint, null, 'Demo set');
      }
      await again();
    });
  const actions = useMemo<Action[]>(
    () => [
      { id: 'new-guided', name: 'New joint, guided', group: 'Joints', key: 'n', run: () => setGuided(true) },
      { id: 'new-blank', name: 'New joint, blank', group: 'Joints', run: blank },
      { id: 'import', name: 'Import a joint file', group: 'Joints', key: 'i', run: () => file.current?.click() },
      { id: 'demo', name: 'Open the demo set', group: 'Joints', key: 'd', run: () => void openDemo() },
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
        const read = await importJoint(f);
        if (read.ok) toast(`Imported “${read.value.name}”.`);
        else setProblem(read.problem);
      });
    }
    if (file.current) file.current.value = '';
    await again();
  };
  const change = (joint: Joint, next: Joint, label: string) =>
    guard(async () => {
      const pointer = await jointShelf.pointer(joint.id);
      await jointShelf.save(next, pointer?.rev ?? null, label);
      await again();
    });
  const remove = (id: string, name: string) =>
    guard(async () => {
      const pointer = await jointShelf.remove(id);
      await again();
      toast(`Deleted “${name}”.`, { duration: 12_000, action: { label: 'Undo', onClick: () => void (pointer && jointShelf.restore(pointer).then(again)) } });
    });

  return (
    <div className="mx-auto flex min-h-full max-w-[1240px] flex-col px-8 py-6" onDragOver={(e) => e.preventDefault()} onDrop={(e) => (e.preventDefault(), void bring(e.dataTransfer.files))}>
      <header className="flex items-end justify-between border-b border-strong pb-3">
        <div>
          <h1 className="text-[26px] leading-none">Gristmill</h1>
          <p className="label pt-1.5">From what a joint must do to a reducer that does it, and back from the bench.</p>
        </div>
        <div className="flex items-center gap-2">
          <button type="button" className="btn" onClick={() => setGuided(true)}>New joint</button>
          <button type="button" className="btn" onClick={blank}>Blank joint</button>
          <button type="button" className="btn" onClick={() => file.current?.click()}>Import</button>
          <Link className="btn-quiet" to="/shop">Shop</Link>
          <button type="button" className="btn-quiet" onClick={() => usePalette.getState().set(true)}>All actions</button>
          <input ref={file} type="file" multiple accept=".json,application/json" className="sr-only" aria-label="Joint file to import" tabIndex={-1} onChange={(e) => void bring(e.target.files)} />
        </div>
      </header>
      <main className="flex-1 pt-2">
        <h2 className="sr-only">Joints</h2>
        {problem ? <div className="py-2"><ProblemNote problem={problem} /></div> : null}
        {storage || joints.error ? <div className="py-2"><ProblemNote problem={storage ?? storageProblem(joints.error)} /></div> : null}
        {guided ? <GuidedStart onCancel={() => setGuided(false)} onStart={(joint) => void start(joint)} /> : null}
        <ul aria-label="Joints">
          {entries.map((e) =>
            e.joint ? (
              <JointRow
                key={e.id} joint={e.joint}
                onRename={(name) => void change(e.joint!, { ...e.joint!, name, changed: new Date().toISOString() }, `Rename to ${name}`)}
                onDuplicate={() => void guard(async () => {
                  await jointShelf.save(copyOf(e.joint!, `${e.joint!.name} copy`.slice(0, 120)), null, 'Duplicate');
                  await again();
                })}
                onDelete={() => void remove(e.id, e.name)}
              />
            ) : (
              <li key={e.id} className="py-2">
                <ProblemNote problem={{ ...e.problem!, what: `“${e.name}”: ${e.problem!.what}` }}>
                  <button type="button" className="mend" onClick={() => void remove(e.id, e.name)}>Delete it</button>
                </ProblemNote>
              </li>
            ),
          )}
        </ul>
        {joints.isSuccess && entries.length === 0 && !guided ? (
          <section className="max-w-[46rem] pt-8">
            <h2 className="text-[18px]">Nothing on the shelf yet.</h2>
            <p className="pt-2">A joint is one driven axis: what it must do, the motor and stages that should do it, and what the bench says. Begin with your own, or look round with the demo set: a made-up workshop that builds a life-size mechanical heron.</p>
            <p className="flex gap-2 pt-4">
              <button type="button" className="btn" onClick={() => void openDemo()}>Open the demo set</button>
              <button type="button" className="btn" onClick={() => setGuided(true)}>New joint</button>
            </p>
          </section>
        ) : null}
      </main>
      <footer className="label border-t border-rule pt-2">
        Joints live in this browser; export them to keep them elsewhere. Gristmill’s figures are estimates, not certification: machines that carry people or could fall on them need local codes and a licensed engineer.
      </footer>
    </div>
  );
}
