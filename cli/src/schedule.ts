import { analyseLine, isMoment, openStage, refuse, ok, type Build, type BuildPlan, type Result } from '@gristmill/core';
import { goingTogether } from '@gristmill/core/assembly/going-together';
import { benchToDo, scheduleOf, startOf, stretchesOf, usualPlan, wallTime } from '@gristmill/core/schedule/index';
import { jointPieces } from '@gristmill/core/schedule/pieces';
import { planCalendar } from '@gristmill/core/schedule/write-calendar';
import { planMarkdown } from '@gristmill/core/schedule/write-plan';
import Kernel from 'manifold-3d';
import { toJson, type Options } from './commands.ts';
import { misuse } from './misuse.ts';
import { finished, wanted, type Wanted } from './make.ts';

/** The build that is planned: the newest of the variant with a plan, the newest of it, or one that is to be. */
function buildOf({ joint, variant }: Wanted): Pick<Build, 'assembly' | 'plan'> & { readonly known?: Build } {
  const builds = joint.builds.filter((b) => b.variantId === variant.id);
  const known = builds.findLast((b) => b.plan) ?? builds.at(-1);
  return known ? { ...known, known } : {};
}

/** `schedule FILE`: a build laid out in time, as Markdown, a calendar file or JSON. */
export async function schedule(file: string | undefined, o: Options): Promise<Result<string>> {
  const of = wanted(file, o, 'gristmill schedule joint.json');
  if (!of.ok) return of;
  const format = o.format ?? 'md';
  if (format !== 'md' && format !== 'ics')
    return misuse(`“${format}” is not a format of plans.`, 'They are written as md or ics.', 'Write --format ics.');
  const today = new Date().toISOString().slice(0, 10);
  const start = o.start ?? today;
  if (!isMoment(start) || start.length !== 10)
    return refuse('--start is not a day.', 'A plan begins on a day of the calendar.', `Write --start ${today}.`);
  const { joint, variant, shelf, joints, title } = of.value;
  if (joints > 20)
    return refuse('--joints is too many for a plan.', 'It tells every one by itself.', 'Write --joints 20 or less.');
  const build = buildOf(of.value);
  const plan: BuildPlan = {
    ...(build.plan ?? usualPlan(start)),
    ...((o.start !== undefined || !build.plan) && { start }),
    ...((o.joints !== undefined || !build.plan) && { joints }),
  };
  const kernel = await Kernel();
  kernel.setup();
  const pieces = finished(jointPieces(kernel, variant, plan.joints, shelf));
  if (!pieces.ok) return pieces;
  const order = finished(goingTogether(kernel, variant, shelf));
  const steps = order.ok && order.value.stuck.length === 0 ? order.value.steps : undefined;
  const lists = variant.stages.map((s) => {
    const opened = openStage(s, shelf);
    return opened.ok ? opened.value.assembly() : [];
  });
  const bench = build.known
    ? benchToDo(joint, variant, build.known, analyseLine(joint, variant, shelf), shelf.instruments)
    : { tests: [], running: [] };
  const input = { pieces: pieces.value, stretches: stretchesOf(variant, build, steps, lists, pieces.value), ...bench };
  // A plan that is told when it begins is the same whenever it is asked for.
  const now = o.start === undefined ? wallTime(new Date().toISOString().slice(0, 16)) : startOf(start);
  const made = scheduleOf(input, plan, shelf, now);
  if (o.json) return ok(toJson(made));
  return ok((format === 'ics' ? planCalendar(made, title, new Date()) : planMarkdown(made, title)).trimEnd());
}
