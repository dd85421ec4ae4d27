import type { StageRecord } from '../schema/joint.ts';
import { ok, type Problem, type Result } from '../result.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Opened, Part, Stage } from '../stage/contract.ts';
import { stageKind } from '../stage/registry.ts';
import { straightened } from '../stage/straight.ts';

/** Opens a stage of a joint; one that remembers may be given in its place. */
export type StageOpener = (record: StageRecord, shelf: Shelf) => Opened;

/** Opens a stage of a joint by its kind. */
export const openStage: StageOpener = (record, shelf) => {
  const kind = stageKind(record.kind);
  if (kind) return kind.open(record.params, shelf);
  return {
    ok: false,
    problem: {
      what: `There is no stage of kind “${record.kind}”.`,
      why: 'This version does not know it.',
      mend: 'Remove the stage or open the file with a newer version.',
    },
  };
};

/** The parts of a stage; refuses in words where it cannot be. */
export function partsOf(kind: string, params: unknown, shelf: Shelf): Result<readonly Part[]> {
  const opened = openStage({ id: '', kind, params: params as Record<string, unknown> }, shelf);
  return opened.ok ? opened.value.parts() : opened;
}

/** Opens every stage of a line; where one cannot be, the one nearest the output that cannot is named. */
export function openLine(
  records: readonly StageRecord[],
  shelf: Shelf,
  open: StageOpener = openStage,
): { readonly each: readonly Opened[]; readonly all: Result<Stage[]> } {
  const each = records.map((record) => open(record, shelf));
  const stages: Stage[] = [];
  for (let j = records.length - 1; j >= 0; j--) {
    const made = each[j]!;
    if (!made.ok) return { each, all: { ok: false, problem: { ...made.problem, place: records[j]!.id } } };
    if (made.value.straight && j < records.length - 1)
      return {
        each,
        all: {
          ok: false,
          problem: {
            what: `Nothing can follow stage ${j + 1}: its output runs straight.`,
            why: 'A stage after it takes a shaft that turns.',
            mend: 'Drag it to the end of the line, or take away what follows it.',
            place: records[j]!.id,
          },
        },
      };
    stages.unshift(made.value);
  }
  return { each, all: ok(stages) };
}

/**
 * Opens every stage of a line as a brief sees it: what runs straight at its end is told about the brief's arm.
 *
 * @param travel m for a radian, as the brief's straight axis has it; undefined where it asks for none
 */
export function openFor(
  travel: number | undefined,
  records: readonly StageRecord[],
  shelf: Shelf,
  open: StageOpener = openStage,
): ReturnType<typeof openLine> {
  const { each, all } = openLine(records, shelf, open);
  const last = records.length - 1;
  if (!all.ok || !all.value[last]?.straight) return { each, all };
  if (travel === undefined) {
    const name = stageKind(records[last]!.kind)!.name.toLowerCase();
    const problem: Problem = {
      what: `The line ends in a ${name}, which runs straight, and the brief asks for something that turns.`,
      why: 'Its force and way cannot be held against a torque and an angle; straight axes of unlike radii cannot be either.',
      mend: 'Take straight axes of one radius as load cases in the Brief view, or take the stage away.',
      place: records[last]!.id,
    };
    return { each, all: { ok: false, problem } };
  }
  const told = straightened(all.value[last], travel);
  return {
    each: [...each.slice(0, -1), ok(told)],
    all: ok([...all.value.slice(0, -1), told]),
  };
}

/**
 * Remembers stages that were opened, by kind and parameters, for one shelf: an edit of one stage leaves the others as
 * they are. Owned by who computes, never by a kind.
 *
 * @param most stages kept; the one asked for longest ago goes first
 */
export function rememberingOpener(most = 24): StageOpener {
  let of: Shelf | undefined;
  const stages = new Map<string, Opened>();
  return (record, shelf) => {
    if (of !== shelf) stages.clear();
    of = shelf;
    const key = `${record.kind} ${JSON.stringify(record.params)}`;
    const made = stages.get(key) ?? openStage(record, shelf);
    stages.delete(key);
    stages.set(key, made);
    if (stages.size > most) stages.delete(stages.keys().next().value!);
    return made;
  };
}
