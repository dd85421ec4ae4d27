import { settleAll, standings, formatQuantity, shopMoved, takeShop, type Finding, type Problem } from '@gristmill/core';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, Outlet, useBlocker, useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { HistoryDialog } from '../parts/HistoryDialog.tsx';
import { ProblemNote } from '../parts/ProblemNote.tsx';
import { Straight } from '../state/straight.tsx';
import { Strip } from '../parts/Strip.tsx';
import { Tally } from '../parts/Tally.tsx';
import { WorkingPanel } from '../parts/WorkingPanel.tsx';
import { slug, unslug } from '../state/address.ts';
import { useJoint, useOpen, useVariant } from '../state/open.ts';
import { usePrefs, useUnits } from '../state/prefs.ts';
import { useShop } from '../state/shop.ts';
import { useServer } from '../state/server.ts';
import { buildOn, saveNow, useStorage, type Conflict } from '../storage/autosave.ts';
import { tell } from '../storage/messages.ts';
import { jointShelf } from '../storage/shelf.ts';
import { followSave, Holding } from '../storage/tabs.ts';
import { SILENCE, storageProblem } from '../storage/trouble.ts';
import { useSilence } from '../storage/watched.ts';
import { useFindings, useLine } from '../workers/queries.ts';
import { useActions, type Action } from './actions.ts';
import { useBackCloses } from './back-closes.ts';
import { copyOf, exportJoint, exportRaw } from './joints.ts';
import { Rail } from './Rail.tsx';
import { SaveMark, StatusLine } from './StatusLine.tsx';
import { useCommonActions } from './common.ts';
import { useTitle } from './title.ts';

/** Opens a joint by its address, holds it for this tab, and lets go of it on leaving. */
function useOpenJoint(id: string): { problem: Problem | undefined; takeOver: () => Promise<void> } {
  const [problem, setProblem] = useState<Problem | undefined>();
  const holding = useRef<Holding>(undefined);
  useEffect(() => {
    let gone = false;
    const own = (holding.current = new Holding(id));
    // A joint made while storage is blocked is already in memory.
    const inMemory = useOpen.getState().joint?.id === id;
    void (async () => {
      await own.start();
      if (gone) return;
      try {
        const read = await jointShelf.open(id);
        if (gone) return;
        if (!read.ok) {
          if (!inMemory) setProblem(read.problem);
          return;
        }
        // Asked now: the other tab may have let go while the joint was being read.
        useOpen.getState().load(read.value.joint, !own.held);
        buildOn(read.value.rev, read.value.joint);
        usePrefs.getState().set({ opened: { ...usePrefs.getState().opened, [id]: Date.now() } });
        if (read.value.fellBack)
          toast(
            'The last save of this joint could not be read; the one before it was opened. The earlier saves can repair or export it.',
            { duration: 10_000 },
          );
      } catch (error) {
        useStorage.setState({ problem: storageProblem(error) });
        if (!inMemory) setProblem(storageProblem(error));
      }
    })();
    return () => {
      gone = true;
      own.stop();
    };
  }, [id]);
  return { problem, takeOver: async () => holding.current?.takeOver() };
}

const NONE: readonly Finding[] = [];
const bar = 'flex flex-wrap items-center gap-3 border-b border-strong bg-serious px-4 py-1.5';

/** The way to another page that a reader is asked about, while he is; and where it leads, from the moment it is held. */
const waiting: { go?: (() => void) | undefined; to?: string | undefined } = {};

/** What to do with what is here where it cannot simply be stored. */
function ConflictNote({ conflict }: { conflict: Conflict }) {
  const joint = useJoint();
  const place = useStorage((s) => s.place);
  const navigate = useNavigate();
  const client = useQueryClient();
  const keepCopy = async () => {
    const from = window.location.pathname;
    const copy = copyOf(joint, `${joint.name.slice(0, 106)} (other tab)`);
    const saved = await jointShelf
      .save(copy, null, 'Kept from another tab')
      .catch((error: unknown) => void useStorage.setState({ problem: storageProblem(error) }));
    if (saved?.state !== 'saved')
      return void (saved?.state === 'refused' && useStorage.setState({ problem: saved.problem, conflict: undefined }));
    // A shelf that was opened before the copy was stored shows it now.
    void client.invalidateQueries({ queryKey: ['joints'] });
    // What was here is stored under its own name: nothing of it is left to lose.
    useStorage.setState({ conflict: undefined });
    useOpen.getState().load(undefined);
    // Whoever left while it was being stored is let go, or is there already; nobody is fetched back.
    if (waiting.go) waiting.go();
    else if (waiting.to !== undefined) navigate(waiting.to);
    else if (window.location.pathname === from) navigate(`/joint/${slug(copy.id)}/brief`);
  };
  const putBack = async () => {
    const saved = await jointShelf
      .putBack(joint, 'Put back on the shelf')
      .catch((error: unknown) => void useStorage.setState({ problem: storageProblem(error) }));
    if (saved?.state === 'saved') {
      buildOn(saved.rev, joint);
      // A change made while it was being stored is still to be saved.
      useOpen.getState().mark(useOpen.getState().joint === joint ? 'saved' : 'unsaved');
      void saveNow();
      tell({ type: 'restored', id: joint.id });
    } else if (saved?.state === 'conflict') useStorage.setState({ conflict: 'changed' });
  };
  const says = {
    changed: `Another tab has saved this joint${place ? `, and both tabs changed ${place}` : ''}. What you changed here is not stored yet.`,
    deleted: 'This joint was deleted in another tab. What you see is here in memory only.',
    taken: 'Another tab took this joint over before your last changes here were stored. They are in this tab only.',
  }[conflict];
  return (
    <div role="alert" className={bar}>
      <span>{says}</span>
      {conflict === 'deleted' ? (
        <button type="button" className="btn" onClick={() => void putBack()}>
          Put it back on the shelf
        </button>
      ) : null}
      {conflict === 'deleted' ? null : (
        <button type="button" className="btn" onClick={() => void keepCopy()}>
          Keep mine as a copy
        </button>
      )}
      {conflict === 'deleted' ? null : (
        <button type="button" className="btn" onClick={() => void followSave(joint.id, true)}>
          Take theirs
        </button>
      )}
      <button type="button" className="btn-quiet" onClick={() => void exportJoint(joint)}>
        Export mine to a file
      </button>
    </div>
  );
}

/** Asks before a joint is left whose changes are nowhere but here. */
function Leaving() {
  const joint = useJoint();
  const blocker = useBlocker(({ currentLocation, nextLocation }) => {
    const { save } = useOpen.getState();
    const { problem, conflict } = useStorage.getState();
    const own = /^\/joint\/[^/]+/.exec(currentLocation.pathname)?.[0];
    const holds =
      save !== 'saved' &&
      useOpen.getState().joint !== undefined &&
      (save === 'failed' || problem !== undefined || conflict !== undefined) &&
      own !== /^\/joint\/[^/]+/.exec(nextLocation.pathname)?.[0];
    // Known at once, before what holds it is drawn.
    waiting.to = holds ? nextLocation.pathname + nextLocation.search : undefined;
    return holds;
  });
  const go = blocker.state === 'blocked' ? blocker.proceed : undefined;
  useEffect(() => {
    waiting.go = go;
    return () => void (waiting.go = waiting.to = undefined);
  }, [go]);
  if (blocker.state !== 'blocked') return null;
  return (
    <div role="alertdialog" aria-label="Leave this joint" className={bar}>
      <span>Your last changes to this joint are not stored, and leaving it lets them go.</span>
      <button type="button" className="btn" autoFocus onClick={() => blocker.reset()}>
        Stay here
      </button>
      <button type="button" className="btn" onClick={() => void exportJoint(joint)}>
        Export it to a file
      </button>
      <button
        type="button"
        className="btn-quiet"
        onClick={() => (
          blocker.proceed(),
          useStorage.setState({ conflict: undefined }),
          useOpen.getState().load(undefined)
        )}
      >
        Leave without them
      </button>
    </div>
  );
}

function Notices({ takeOver }: { takeOver: () => Promise<void> }) {
  const joint = useJoint();
  const readOnly = useOpen((s) => s.readOnly);
  const { problem, conflict } = useStorage();
  const silent = useSilence((s) => s.silent);
  const stopped = useServer((s) => s.stopped);
  const [asking, setAsking] = useState(false);
  if (conflict) return <ConflictNote conflict={conflict} />;
  if (readOnly) {
    return (
      <div role="status" className={bar}>
        <span>This joint is open in another tab. You are looking on; what is saved there appears here.</span>
        <button
          type="button"
          className="btn"
          disabled={asking}
          onClick={() => (setAsking(true), void takeOver().finally(() => setAsking(false)))}
        >
          {asking ? 'Asking the other tab…' : 'Work on it here instead'}
        </button>
      </div>
    );
  }
  const trouble = problem ?? (silent ? SILENCE : undefined);
  if (trouble) {
    return (
      <div className="border-b border-strong bg-serious px-4 py-1.5">
        <ProblemNote problem={trouble}>
          <button type="button" className="btn mr-2 mt-1" onClick={() => void exportJoint(joint)}>
            Export this joint
          </button>
          <button type="button" className="btn mt-1" onClick={() => void saveNow()}>
            Try to save again
          </button>
        </ProblemNote>
      </div>
    );
  }
  if (stopped) {
    return (
      <div role="status" className={bar}>
        <span>
          The server that Gristmill came from has stopped. What is open goes on working and is stored in this browser;
          views not yet loaded come when it is back (<span className="num">npm run demo</span>).
        </span>
      </div>
    );
  }
  return <MovedOn />;
}

/** The shop has other values than those the joint was computed with: says which, and takes them when asked. */
function MovedOn() {
  const joint = useJoint();
  const edit = useOpen((s) => s.edit);
  const shop = useShop((s) => s.shelf);
  const units = useUnits();
  const [dismissed, setDismissed] = useState('');
  const moved = useMemo(() => shopMoved(joint, shop), [joint, shop]);
  const key = moved.map((m) => `${m.kind}/${m.id}/${m.now ?? ''}`).join();
  if (moved.length === 0 || dismissed === key) return null;
  const say = (m: (typeof moved)[number]) =>
    m.quantity && m.kept !== undefined && m.now !== undefined
      ? `${m.name}: ${formatQuantity(m.kept, m.quantity, units, 3)} → ${formatQuantity(m.now, m.quantity, units, 3)}`
      : m.name;
  return (
    <div
      role="status"
      data-moved=""
      className="flex flex-wrap items-center gap-3 border-b border-strong bg-serious px-4 py-1.5"
    >
      <span className="min-w-0 flex-1">
        The shop has moved on since this joint was computed. {moved.slice(0, 2).map(say).join('; ')}
        {moved.length > 2 ? `; and ${moved.length - 2} more` : ''}.
      </span>
      <button
        type="button"
        className="btn"
        onClick={() => edit('Take the shop’s values', (d) => void Object.assign(d, takeShop(joint, shop)))}
      >
        Take the shop’s values
      </button>
      <button type="button" className="btn-quiet" onClick={() => setDismissed(key)}>
        Keep its own
      </button>
    </div>
  );
}

/** What a view is called in the title of its page: the last word of its address that is one. */
function viewName(pathname: string): string {
  const words = pathname
    .split('/')
    .slice(3)
    .map((w) => w.replace(/-/g, ' '));
  const [view = '', more] = words;
  const name = `${view.slice(0, 1).toUpperCase()}${view.slice(1)}`;
  return more ? `${name} ${more}` : name;
}

function Sheet({ takeOver }: { takeOver: () => Promise<void> }) {
  const joint = useJoint();
  const variant = useVariant();
  const { report, ms, error } = useLine();
  const findings = useFindings().data ?? NONE;
  const { builds, tests } = joint;
  const found = useMemo(() => standings(findings, tests), [findings, tests]);
  const verdicts = useMemo(
    () => report && settleAll(builds, report.verdicts, found, variant),
    [builds, report, found, variant],
  );
  const [history, setHistory] = useState(false);
  const closeHistory = useCallback(() => setHistory(false), []);
  useBackCloses('history', history, closeHistory);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  useTitle(viewName(pathname), joint.name);
  // A variant that was switched to stands in the address, so that it can be marked and gone back from.
  const [params, setParams] = useSearchParams();
  const named = params.get('variant');
  const openVariant = useCallback(
    (id: string) => {
      useOpen.getState().openVariant(id);
      const name = useOpen.getState().joint?.variants.find((v) => v.id === id)?.name;
      if (name !== undefined)
        setParams((now) => new URLSearchParams([...[...now].filter(([k]) => k !== 'variant'), ['variant', name]]));
    },
    [setParams],
  );
  useEffect(() => {
    // Renders of an address come late; by then another may stand there.
    if (new URLSearchParams(window.location.search).get('variant') !== named) return;
    const { joint: there, openVariant: open } = useOpen.getState();
    const wanted = there?.variants.find((v) => v.name === named || v.id === named);
    if (wanted) open(wanted.id);
  }, [named]);
  // One that another hand switched to (compare, review, undo) takes the place of the one that the address names.
  const opened = useRef(variant.id);
  useEffect(() => {
    if (opened.current === variant.id) return;
    opened.current = variant.id;
    const says = new URLSearchParams(window.location.search).get('variant');
    if (says === null || says === variant.name || says === variant.id) return;
    setParams((now) => new URLSearchParams([...[...now].filter(([k]) => k !== 'variant'), ['variant', variant.name]]), {
      replace: true,
    });
  }, [variant.id, variant.name, setParams]);
  useCommonActions();
  const actions = useMemo<Action[]>(() => {
    const go = (path: string) => () => void navigate(`/joint/${slug(joint.id)}/${path}`);
    // Read when the key is pressed: quick presses come faster than renders.
    const at = () => Number(/\/stage\/(\d+)/.exec(window.location.pathname)?.[1] ?? 0);
    const count = variant.stages.length;
    return [
      ...['Brief', 'Line', 'Stage', 'Make', 'Bench', 'Review', 'Shop'].map((name, i) => ({
        id: `go-${name}`,
        name: `Go to ${name}`,
        group: 'Views',
        key: String(i + 1),
        run: go(name.toLowerCase()),
      })),
      {
        id: 'stage-before',
        name: 'Stage before',
        group: 'Views',
        key: '[',
        enabled: count > 0,
        run: () => go(`stage/${Math.max(1, at() > 0 ? at() - 1 : count)}`)(),
      },
      {
        id: 'stage-after',
        name: 'Stage after',
        group: 'Views',
        key: ']',
        enabled: count > 0,
        run: () => go(`stage/${Math.min(count, at() + 1)}`)(),
      },
      {
        id: 'undo',
        name: 'Undo',
        group: 'Joint',
        key: 'ctrl+z',
        run: () => {
          const label = useOpen.getState().undo();
          toast(label ? `Undone: ${label}` : 'Nothing to undo');
        },
      },
      {
        id: 'redo',
        name: 'Redo',
        group: 'Joint',
        key: 'ctrl+shift+z',
        run: () => {
          const label = useOpen.getState().redo();
          toast(label ? `Done again: ${label}` : 'Nothing to redo');
        },
      },
      {
        id: 'export',
        name: 'Export this joint to a file',
        group: 'Joint',
        key: 'ctrl+e',
        run: () => exportJoint(useOpen.getState().joint!),
      },
      {
        id: 'save-file',
        name: 'Save to its file, or to a new one',
        group: 'Joint',
        key: 'ctrl+shift+s',
        run: () => void import('./own-files.ts').then((m) => m.saveToFile(useOpen.getState().joint!)),
      },
      { id: 'save', name: 'Save now', group: 'Joint', key: 'ctrl+s', run: () => void saveNow() },
      { id: 'history', name: 'Earlier saves of this joint', group: 'Joint', key: 'h', run: () => setHistory(true) },
      {
        id: 'working',
        name: 'Open the working of a figure',
        group: 'Views',
        key: 'w',
        run: () => {
          const near =
            document.activeElement?.closest('[data-limit],tr,li')?.querySelector<HTMLElement>('[data-figure]') ??
            document.querySelector<HTMLElement>('main [data-figure], aside [data-figure]');
          near?.click();
        },
      },
      { id: 'print', name: 'Print this view', group: 'Joint', key: 'ctrl+p', run: () => window.print() },
      ...joint.variants.map((v) => ({
        id: `variant-${v.id}`,
        name: `Open variant ${v.name}`,
        group: 'Variants',
        run: () => openVariant(v.id),
      })),
    ];
  }, [navigate, joint.id, joint.variants, variant.stages.length, openVariant]);
  useActions('joint', actions);
  return (
    <div className="flex h-full flex-col print:h-auto">
      <Leaving />
      <Notices takeOver={takeOver} />
      <p className="hidden pb-2 print:block">
        <b>Gristmill</b> · {joint.name} · variant {variant.name} · {new Date().toISOString().slice(0, 10)}
      </p>
      <header className="no-print grid h-[112px] shrink-0 grid-cols-[132px_minmax(0,1fr)] border-b border-strong bg-panel compact:h-auto compact:grid-cols-1">
        <div className="flex min-w-0 flex-col justify-between border-r border-rule px-3.5 py-2.5 compact:flex-row compact:items-center compact:gap-3 compact:border-r-0 compact:py-1">
          <Link to="/" className="text-[16px] font-bold leading-none">
            Gristmill
          </Link>
          <div className="min-w-0 text-[12px] leading-snug text-muted compact:flex compact:items-center compact:gap-3">
            <div className="truncate font-semibold text-ink" title={joint.name}>
              {joint.name}
            </div>
            <label className="flex items-center gap-1">
              variant
              <select
                aria-label="Variant"
                className="select -my-0.5 min-w-0 flex-1"
                value={variant.id}
                onChange={(e) => openVariant(e.target.value)}
              >
                {joint.variants.map((v) => (
                  <option key={v.id} value={v.id}>
                    {v.name}
                  </option>
                ))}
              </select>
            </label>
            <SaveMark onHistory={() => setHistory(true)} />
          </div>
        </div>
        <div className="contents compact:hidden">
          <Straight>
            <Strip joint={joint} variant={variant} report={report} />
          </Straight>
        </div>
      </header>
      <div className="grid min-h-0 flex-1 grid-cols-[104px_minmax(0,1fr)_auto] max-[1099px]:grid-cols-[92px_minmax(0,1fr)] max-[1099px]:grid-rows-[minmax(0,1fr)_auto] compact:!grid-cols-1 compact:!grid-rows-[minmax(0,1fr)_auto_auto] print:block">
        <Rail joint={joint} report={report} verdicts={verdicts} findings={findings} />
        <main className="min-h-0 min-w-0 overflow-y-auto compact:overflow-x-auto print:overflow-visible">
          {error ? (
            <div className="p-4">
              <ProblemNote
                problem={
                  error.name === 'NotLoaded'
                    ? storageProblem(error)
                    : {
                        what: 'The line could not be computed.',
                        why: error.message,
                        mend: 'Undo the last change, or reload the page.',
                      }
                }
              />
            </div>
          ) : (
            <Outlet />
          )}
        </main>
        <div className="flex min-h-0 max-[1099px]:col-span-2 max-[1099px]:max-h-[25vh] compact:!col-span-1 compact:max-h-[46vh] print:hidden [&>aside]:max-[1099px]:flex-1">
          <Straight>
            <Tally verdicts={verdicts} />
          </Straight>
        </div>
      </div>
      <div className="contents compact:hidden">
        <StatusLine ms={ms} />
      </div>
      <WorkingPanel />
      <HistoryDialog
        open={history}
        onClose={closeHistory}
        onExportRaw={(rev) => void exportRaw(joint.id, joint.name, rev)}
      />
    </div>
  );
}

/** The frame of a joint: strip above, rail left, tally right, the view in the middle, status below. */
export function JointFrame() {
  const { id = '' } = useParams();
  return <Opened key={id} id={unslug(id)} />;
}

function Opened({ id }: { id: string }) {
  const { problem, takeOver } = useOpenJoint(id);
  const silent = useSilence((s) => s.silent);
  const joint = useOpen((s) => s.joint);
  if (problem) {
    return (
      <main className="mx-auto max-w-[38rem] p-10">
        <ProblemNote problem={problem} />
        <p className="pt-4">
          <Link to="/" className="btn">
            Back to the joints
          </Link>
        </p>
      </main>
    );
  }
  if (joint?.id !== id)
    return silent ? (
      <main className="mx-auto max-w-[38rem] p-10">
        <ProblemNote problem={SILENCE} />
      </main>
    ) : (
      <p className="label p-6">Opening the joint…</p>
    );
  return <Sheet takeOver={takeOver} />;
}
