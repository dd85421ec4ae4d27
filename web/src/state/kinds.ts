let asked: Promise<void> | undefined;

/**
 * Every kind of stage is known once this has settled; a joint must not be read before. The first, empty page does
 * without.
 */
export const kindsKnown = (): Promise<void> =>
  (asked ??= import('@gristmill/core/stage/catalogue').then((m) => m.registerKinds()));
