import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { router } from '../../app/router.tsx';
import { useWorking } from '../../app/working.ts';
import { jointPath } from '../../state/address.ts';
import { useCrank } from '../../state/crank.ts';
import { useOpen } from '../../state/open.ts';
import { usePrefs } from '../../state/prefs.ts';
import { TOUR_JOINT } from './state.ts';
import { STOPS, type Standing } from './stops.ts';

const usePath = (): string =>
  useSyncExternalStore(
    (told) => router.subscribe(told),
    () => router.state.location.pathname,
  );

/** The stop that the tour stands at, over whatever is open; nothing while there is no tour. */
export function Tour() {
  const tour = usePrefs((s) => s.tour);
  return typeof tour === 'number' && STOPS[tour] ? <TourStop key={tour} at={tour} /> : null;
}

function TourStop({ at }: { at: number }) {
  const stop = STOPS[at]!;
  const path = usePath();
  const joint = useOpen((s) => s.joint);
  const crank = useCrank((s) => s.angle);
  const workingOpen = useWorking((s) => s.subject !== undefined);
  const now: Standing = { joint: joint?.id === TOUR_JOINT ? joint : undefined, crank, workingOpen, path };
  // As things stood when this stop was reached: its joint opens a moment later.
  const [before, setBefore] = useState(now);
  if (before.joint === undefined && now.joint !== undefined) setBefore({ ...before, joint: now.joint });
  const there = path.startsWith(jointPath(TOUR_JOINT, stop.view));
  const [did, setDid] = useState(false);
  if (!did && there && stop.done(now, before)) setDid(true);
  const [left, setLeft] = useState(false);
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => head.current?.focus({ preventScroll: true }), []);
  const go = (to: number) => {
    if (to >= STOPS.length) return usePrefs.getState().set({ tour: undefined, tourAt: 'ended' });
    usePrefs.getState().set({ tour: to });
    void router.navigate(jointPath(TOUR_JOINT, STOPS[to]!.view));
  };
  const last = at === STOPS.length - 1;
  return (
    <section
      aria-label="Tour"
      className={`no-print fixed bottom-9 z-20 w-[min(340px,92vw)] border border-ink bg-panel p-3 ${left ? 'left-3' : 'right-3'}`}
    >
      <div className="flex items-baseline justify-between gap-2">
        <h2 ref={head} tabIndex={-1} className="text-[15px]">
          {stop.name}
        </h2>
        <span className="label whitespace-nowrap">
          stop {at + 1} of {STOPS.length}
        </span>
      </div>
      <p className="pt-1">{stop.says}</p>
      <p role="status" className={`border-l-3 pl-2 pt-1 ${did ? 'border-expected' : 'border-found font-semibold'}`}>
        {did ? stop.after : stop.todo}
      </p>
      <p className="flex flex-wrap items-center gap-2 pt-2">
        {there ? null : (
          <button type="button" className="btn" onClick={() => go(at)}>
            Go there
          </button>
        )}
        <button type="button" className={did ? 'btn' : 'btn-quiet'} onClick={() => go(at + 1)}>
          {last ? 'End the tour' : did ? 'Next stop' : 'Skip this stop'}
        </button>
        {at > 0 ? (
          <button type="button" className="btn-quiet" onClick={() => go(at - 1)}>
            Back
          </button>
        ) : null}
        <button type="button" className="btn-quiet" onClick={() => setLeft(!left)}>
          Move aside
        </button>
        {last ? null : (
          <button
            type="button"
            className="btn-quiet"
            onClick={() => usePrefs.getState().set({ tour: undefined, tourAt: at })}
          >
            Leave the tour
          </button>
        )}
      </p>
    </section>
  );
}
