import { belt } from './belt/index.ts';
import { unit } from './unit/index.ts';
import type { AnyStageKind, StageKindId } from './contract.ts';

const kinds = new Map<StageKindId, AnyStageKind>();

/** Adds a kind; a second one of the same id replaces the first. */
export function register(kind: AnyStageKind): void {
  kinds.set(kind.id, kind);
}

/** Takes a kind out again (for tests that plug one in). */
export function unregister(id: StageKindId): void {
  kinds.delete(id);
}

export const stageKind = (id: StageKindId): AnyStageKind | undefined => kinds.get(id);

export const stageKinds = (): readonly AnyStageKind[] => [...kinds.values()];

register(belt);
register(unit);
