import type { Build } from '@gristmill/core';
import { benchToDo } from '@gristmill/core/schedule/bench-to-do';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { useJoint, useVariant } from '../../../state/open.ts';
import { useEdits, useShelf } from '../../../state/shelf.ts';
import { contentId } from '../../../workers/content.ts';
import { useLine } from '../../../workers/queries.ts';
import { lineSchedule } from '../../../workers/solid.ts';
import { wallNow } from './words.ts';

const MINUTE = 60e3;

/** The clock on the wall, looked at once a minute. */
function useWallClock() {
  const [clock, setClock] = useState(wallNow);
  useEffect(() => {
    const timer = setInterval(() => setClock((had) => (wallNow().now === had.now ? had : wallNow())), MINUTE);
    return () => clearInterval(timer);
  }, []);
  return clock;
}

/** A build laid out in time; the last plan stays in sight while a new one is made. */
export function useSchedule(build: Build | undefined) {
  const joint = useJoint();
  const variant = useVariant();
  const edits = useEdits();
  const shelf = useShelf();
  const { report } = useLine();
  const { now, offset } = useWallClock();
  const [share, setShare] = useState(0);
  const { motor, driver, mount, output, housing, stages } = variant;
  const plan = build?.plan;
  const bench = useMemo(
    () => (build && report ? benchToDo(joint, variant, build, report, shelf.instruments) : { tests: [], running: [] }),
    [joint, variant, build, report, shelf],
  );
  const key = [motor, driver, mount, output, housing, stages, edits, plan, build?.assembly].map(contentId);
  const query = useQuery({
    queryKey: ['schedule', variant.id, build?.id, ...key, JSON.stringify(bench), now, offset],
    queryFn: ({ signal }) =>
      lineSchedule({ variant, shop: edits, build: build!, plan: plan!, bench, now, offset }, setShare, signal),
    enabled: plan !== undefined,
    staleTime: Infinity,
    gcTime: 30_000,
    placeholderData: (was) => was,
    structuralSharing: false,
  });
  return { query, share, now };
}
