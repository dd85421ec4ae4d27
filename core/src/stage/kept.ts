import { recorded, type Reads } from '../shop/reads.ts';
import type { Shelf } from '../shop/shelf.ts';

interface Slot {
  readonly given: readonly unknown[];
  readonly reads: Reads;
  readonly value: unknown;
  /** How warm the stage was. */
  readonly warm: number | undefined;
}

/**
 * Keeps what steps of a computation came to, until something that they were given or have read changes: with one factor
 * of the shop moved only the steps that read it run again.
 *
 * One stage has one of these, so that nothing of it outlives the stage. What is computed with a factor set aside for a
 * trial is handed out and forgotten: the next trial moves another one.
 */
export class Kept {
  private readonly slots = new Map<string, Slot>();

  /**
   * The result of a step.
   *
   * @param name of the step, one of its kind in a stage
   * @param given what the step depends on beside the shop; compared by `Object.is`
   * @param shelf the shop as it stands for this computation
   * @param work the step; reads the shop through the shelf that it is given, and nothing else that can change
   */
  step<T>(name: string, given: readonly unknown[], shelf: Shelf, work: (shelf: Shelf) => T): T {
    const had = this.slots.get(name);
    if (had && stands(had, given, shelf)) {
      shelf.reads?.add(had.reads);
      return had.value as T;
    }
    // A trial's result is not kept, and nobody asks what it read.
    if (shelf.over) return work(shelf);
    const { value, reads } = recorded(shelf, work);
    this.slots.set(name, { given, reads, value, warm: shelf.warm });
    return value;
  }
}

function stands(had: Slot, given: readonly unknown[], shelf: Shelf): boolean {
  if (shelf.over && had.reads.factors.has(shelf.over.id)) return false;
  if (shelf.warm !== had.warm && had.reads.factors.has('ambient')) return false;
  for (let i = 0; i < given.length; i++) if (!Object.is(given[i], had.given[i])) return false;
  return given.length === had.given.length;
}
