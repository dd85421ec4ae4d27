import type { StoreName, Vault } from './vault.ts';

/** A recording that was interrupted, as it was kept while it ran. */
export interface Interrupted {
  /** Its own: of the joint, the tab and the moment it began. */
  readonly session: string;
  readonly jointId: string;
  readonly when: string;
  readonly source: string;
  readonly chunks: number;
}

const LIVE: readonly StoreName[] = ['live'];
const head = (session: string): string => `head ${session}`;
const chunk = (session: string, i: number): string => `chunk ${session} ${i}`;
const lockOf = (session: string): string => `gristmill-live-${session}`;

/**
 * What is being recorded, kept every few seconds so that a reload loses at most the last moments. Each recording lies
 * under a name of its own: a second one, in another joint or tab, leaves the first alone.
 */
export class LiveRecordings {
  constructor(private readonly vault: Vault) {}

  /**
   * Begins to keep a recording. `keep` adds lines, `end` says that it runs no more; what was kept stays until it is
   * forgotten.
   */
  begin(
    session: string,
    jointId: string,
    source: string,
  ): { keep: (lines: readonly string[]) => Promise<void>; end: () => void } {
    let chunks = 0;
    let release: () => void = () => undefined;
    // Held while it runs: another tab, or this one after a reload, can tell what was interrupted from what goes on.
    void globalThis.navigator?.locks?.request(lockOf(session), () => new Promise<void>((done) => (release = done)));
    return {
      keep: async (lines) => {
        if (lines.length === 0) return;
        const at = chunks++;
        await this.vault.write(LIVE, async (tx) => {
          await tx.set('live', chunk(session, at), lines.join('\n'));
          await tx.set('live', head(session), {
            session,
            jointId,
            when: new Date().toISOString(),
            source,
            chunks: at + 1,
          } satisfies Interrupted);
        });
      },
      end: () => release(),
    };
  }

  /** Interrupted recordings of a joint, the newest first. */
  async interrupted(jointId: string): Promise<Interrupted[]> {
    const running = new Set((await globalThis.navigator?.locks?.query())?.held?.map((l) => l.name));
    const all = await this.vault.read(LIVE, async (at) => {
      const out: (Interrupted | null)[] = [];
      for (const key of await at.keys('live'))
        if (key.startsWith('head')) out.push(await at.get<Interrupted>('live', key));
      return out;
    });
    // Before recordings had names of their own there was one, under nothing but its head.
    return all
      .flatMap((k) =>
        k && k.jointId === jointId && !running.has(lockOf(k.session ?? '')) ? [{ ...k, session: k.session ?? '' }] : [],
      )
      .sort((a, b) => b.when.localeCompare(a.when));
  }

  /** The lines of an interrupted recording. */
  lines(k: Interrupted): Promise<string[]> {
    return this.vault.read(LIVE, async (at) => {
      const out: string[] = [];
      for (let i = 0; i < k.chunks; i++)
        for (const line of ((await at.get<string>('live', k.session ? chunk(k.session, i) : `chunk${i}`)) ?? '').split(
          '\n',
        ))
          out.push(line);
      return out;
    });
  }

  /** Lets go of a recording, of its joint's others not. */
  forget(session: string): Promise<void> {
    return this.vault.write(LIVE, async (at) => {
      for (const key of await at.keys('live')) {
        const own = session
          ? key === head(session) || key.startsWith(`chunk ${session} `)
          : key === 'head' || /^chunk\d+$/.test(key);
        if (own) await at.remove('live', key);
      }
    });
  }

  /** Lets go of what was recorded for joints that are no more. */
  sweep(jointIds: ReadonlySet<string>): Promise<void> {
    return this.vault.write(LIVE, async (at) => {
      const gone: string[] = [];
      for (const key of await at.keys('live')) {
        const k = key.startsWith('head ') ? await at.get<Interrupted>('live', key) : null;
        if (k && !jointIds.has(k.jointId)) gone.push(k.session);
      }
      for (const key of await at.keys('live'))
        if (gone.some((s) => key === head(s) || key.startsWith(`chunk ${s} `))) await at.remove('live', key);
    });
  }
}
