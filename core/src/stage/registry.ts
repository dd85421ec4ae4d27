import type { AnyStageKind, StageKindId } from './contract.ts';

// Which kinds there are is said by the catalogue; here they are looked up.
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
