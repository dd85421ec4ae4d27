import type { FindResult } from '@gristmill/core';
import * as v from 'valibot';
import type { Vault } from './vault.ts';

/** Raised when what a search finds is told otherwise: what was kept before is looked for anew then. */
const VERSION = 1;

/** What a search found, with what it was asked, so that it can be told whether it still stands. */
export interface KeptFound {
  /** Contents of brief, sensor, mount, output and shop at the time. */
  readonly asked: readonly unknown[];
  readonly when: string;
  /** A first look alone. */
  readonly first: boolean;
  readonly result: FindResult;
}

/** As much of it as the view leans on: what was kept by another version, or spoiled, counts as not there. */
const kept = v.object({
  version: v.literal(VERSION),
  asked: v.array(v.unknown()),
  when: v.pipe(
    v.string(),
    v.check((text) => Number.isFinite(Date.parse(text))),
  ),
  first: v.boolean(),
  result: v.looseObject({
    lines: v.array(
      v.looseObject({
        id: v.string(),
        stages: v.array(v.looseObject({ id: v.string(), kind: v.string(), params: v.looseObject({}) })),
        motor: v.looseObject({ id: v.string(), name: v.string() }),
        aims: v.record(v.string(), v.number()),
        chance: v.looseObject({ all: v.number() }),
      }),
    ),
    whyNot: v.array(v.looseObject({ kind: v.string() })),
    screened: v.number(),
    looked: v.number(),
  }),
});

/** What searches found, one set a joint; it can always be found again, and so is not part of the joint's file. */
export class FoundSets {
  constructor(private readonly vault: Vault) {}

  async keep(joint: string, found: KeptFound): Promise<void> {
    await this.vault.write(['found'], (at) => at.set('found', joint, { version: VERSION, ...found }));
  }

  /** What was found for a joint; undefined where nothing is kept that can be read. */
  async read(joint: string): Promise<KeptFound | undefined> {
    const read = v.safeParse(kept, await this.vault.read(['found'], (at) => at.get('found', joint)));
    return read.success ? (read.output as unknown as KeptFound) : undefined;
  }

  /** Frees what was found for joints that are gone. */
  async sweep(joints: ReadonlySet<string>): Promise<void> {
    await this.vault.write(['found'], async (at) => {
      for (const id of await at.keys('found')) if (!joints.has(id)) await at.remove('found', id);
    });
  }
}
