import type { packRecording, Joint, BenchTest } from '@gristmill/core';
import type { Vault } from './vault.ts';

type Packed = ReturnType<typeof packRecording>;
export type KeptRecording = NonNullable<BenchTest['recording']>;

/** Text of a recording beyond this length is kept beside the joint, so that saves stay small. */
const INLINE = 120_000;

/** SHA-256 of a text as UTF-8, 64 hexadecimal digits. */
export async function sha256(text: string): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text));
  return [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('');
}

/** The samples of a recording beside its joint. */
interface Attachment {
  readonly text: string;
  /** When it was kept, milliseconds since 1970: what is fresh is not swept. */
  readonly at: number;
}

const withData = (t: BenchTest, text: string, sha: string): BenchTest => ({
  ...t,
  recording: { ...t.recording!, sha256: sha, data: text },
});

function withoutData(t: BenchTest, sha: string): BenchTest {
  const { data: _data, ...head } = t.recording!;
  return { ...t, recording: { ...head, sha256: sha } };
}

/**
 * Recordings beside the joints, by their content: the same samples are kept once, whoever refers to them, and never
 * change under anybody.
 */
export class Recordings {
  constructor(
    private readonly vault: Vault,
    private readonly now: () => number = Date.now,
  ) {}

  private async put(text: string, sha: string): Promise<void> {
    await this.vault.write(['attachments'], async (at) => {
      // Written again though it may be there: its time is what keeps it from the next sweep.
      await at.set('attachments', `sha256:${sha}`, { text, at: this.now() } satisfies Attachment);
    });
  }

  /** A recording as a test keeps it: whole where it is small, otherwise beside the joint. */
  async keep(name: string, packed: Packed): Promise<KeptRecording> {
    const sha = await sha256(packed.data);
    const { data, ...head } = packed;
    if (data.length <= INLINE) return { name, ...head, sha256: sha, data };
    await this.put(data, sha);
    return { name, ...head, sha256: sha };
  }

  /** The packed samples of a recording; null where they are not here. */
  async data(r: KeptRecording): Promise<string | null> {
    return r.data ?? (r.sha256 ? this.byHash(r.sha256) : null);
  }

  /** The packed samples under a hash; null where they are not here. */
  async byHash(sha: string): Promise<string | null> {
    return (
      (await this.vault.read(['attachments'], (at) => at.get<Attachment>('attachments', `sha256:${sha}`)))?.text ?? null
    );
  }

  private async each(joint: Joint, change: (t: BenchTest, r: KeptRecording) => Promise<BenchTest>): Promise<Joint> {
    let moved = false;
    const tests: Joint['tests'] = [];
    // One after the other: a few recordings of millions of samples at once would fill the memory.
    for (const t of joint.tests) {
      const own = t as BenchTest;
      const next = own.recording ? await change(own, own.recording) : own;
      moved ||= next !== own;
      tests.push(next);
    }
    return moved ? { ...joint, tests } : joint;
  }

  /** The joint with every recording in it, for a file. */
  whole(joint: Joint): Promise<Joint> {
    return this.each(joint, async (t, r) => {
      const data = await this.data(r);
      return data === null ? t : withData(t, data, r.sha256 ?? (await sha256(data)));
    });
  }

  /**
   * The joint with large recordings taken out of it and kept beside it. What a file says of a hash is not believed: it
   * is worked out.
   */
  light(joint: Joint): Promise<Joint> {
    return this.each(joint, async (t, r) => {
      if (r.data === undefined) return t;
      const sha = await sha256(r.data);
      if (r.data.length <= INLINE) return r.sha256 === sha ? t : withData(t, r.data, sha);
      await this.put(r.data, sha);
      return withoutData(t, sha);
    });
  }

  /** Puts samples from a bundle where joints look for them. */
  async bring(text: string): Promise<string> {
    const sha = await sha256(text);
    await this.put(text, sha);
    return sha;
  }
}
