import { TEST_KINDS } from '../bench/kinds/index.ts';
import { testPlan } from '../bench/plan.ts';
import type { LineReport } from '../line/analyse.ts';
import type { Build, Joint, Variant } from '../schema/joint.ts';
import type { Instrument } from '../shop/instrument.ts';
import type { PlanInput, Running } from './tasks.ts';
import { startOf } from './wall-clock.ts';

/** A run of cycles is read by its count; a kind of test with such a column has readings to come. */
const CYCLES = 'cycles';

/** Runs of a build that are not worn out: how far each has come, and how fast it goes on. */
function running(joint: Joint, build: Build, line: LineReport): Running[] {
  // The hardest case of the brief is what is run.
  const hardest = line.demand.cases.reduce<(typeof line.demand.cases)[number] | undefined>(
    (most, c) => (most && most.loads.rms >= c.loads.rms ? most : c),
    undefined,
  );
  const period = hardest?.loads.cycle ?? 0;
  if (!(period > 0)) return [];
  const upTo = (line.demand.life ?? Infinity) / period;
  return joint.tests.flatMap((t): Running[] => {
    const kind = TEST_KINDS.find((k) => k.id === t.kind);
    if (t.buildId !== build.id || t.teardown?.length || !kind?.columns.some((c) => c.id === CYCLES)) return [];
    const read = t.readings.flatMap((r) => (r.struck === undefined ? Number(r.values[CYCLES] ?? 0) || 0 : []));
    return [{ id: t.id, name: kind.name, cycles: Math.max(0, ...read), since: startOf(t.date), period, upTo }];
  });
}

/** What the bench still has to do with a build: tests that its plan asks for, each once, and readings of runs. */
export function benchToDo(
  joint: Joint,
  variant: Variant,
  build: Build,
  line: LineReport,
  instruments: readonly Instrument[],
): Pick<PlanInput, 'tests' | 'running'> {
  const own = joint.tests.filter((t) => t.buildId === build.id);
  const planned = testPlan({ ...joint, builds: [build] }, variant, line, instruments, own).filter((t) => !t.done);
  const tests = [...new Map(planned.map((t) => [t.kind, { id: t.kind, name: t.name }])).values()];
  return { tests, running: running(joint, build, line) };
}
