import {
  TEST_KINDS,
  analyseLine,
  eachTest,
  factorReaders,
  findingsFor,
  importFile,
  makeShelf,
  packRecording,
  unpackRecording,
  movers,
  playSpread,
  ratioDesk,
  rememberingOpener,
  waysOut,
  type Finding,
  type Joint,
  type BenchTest,
  type Shelf,
  type ShopEdits,
} from '@gristmill/core';
import { registerKinds } from '@gristmill/core/stage/catalogue';
import { expose } from 'comlink';
import { Recordings, sha256 } from '../storage/recordings.ts';
import { BrowserVault } from '../storage/vault.ts';
import type { Analysing, CoreApi } from './api.ts';

const recordings = new Recordings(new BrowserVault());
let kept: { key: string; shelf: Shelf } | undefined;

/** An edit of one stage leaves the others of its line as they are. */
const open = rememberingOpener(64);

/** Building the shelf costs more than a line; the same edits give the same shelf. */
function shelfFor(edits: ShopEdits): Shelf {
  const key = JSON.stringify(edits);
  if (kept?.key !== key) kept = { key, shelf: makeShelf(edits) };
  return kept.shelf;
}

/**
 * Findings of recorded tests by what they were made from, samples by their hash: a recording of a million samples is
 * analysed once, not at every change of another test.
 */
const known = new Map<string, Finding[]>();

/** Samples below which an analysis is over before it could be read that it is under way. */
const LONG = 50_000;

async function allFindings(joint: Joint, shelf: Shelf, onProgress: (at: Analysing) => void): Promise<Finding[]> {
  const out: Finding[] = [];
  for (const { test, variant, line } of eachTest(joint, shelf)) {
    const recording = (test as BenchTest).recording;
    if (!recording) {
      out.push(...findingsFor(test, variant, line, shelf));
      continue;
    }
    const { data: _data, ...head } = recording;
    const content = recording.sha256 ?? (recording.data === undefined ? undefined : await sha256(recording.data));
    const key = JSON.stringify([
      test.id,
      test.readings,
      test.rig,
      head,
      content,
      shelf.instruments.find((i) => i.id === test.rig['instrument']),
      variant?.id,
      line?.figures.map((f) => f.value),
    ]);
    let made = content === undefined ? undefined : known.get(key);
    if (!made) {
      const tell = (share: number) => {
        if (recording.rows > LONG) onProgress({ testId: test.id, samples: recording.rows, share });
      };
      tell(0);
      const data = (await recordings.data(recording).catch(() => null)) ?? undefined;
      const r = unpackRecording({ ...recording, ...(data !== undefined && { data }) });
      made = findingsFor(test, variant, line, shelf, r.ok ? r.value : undefined, (share) => tell(0.2 + 0.8 * share));
      if (known.size > 60) known.clear();
      known.set(key, made);
    }
    out.push(...made);
  }
  return out;
}

const api: CoreApi = {
  line: async (brief, variant, shop) => {
    const shelf = shelfFor(shop);
    const start = performance.now();
    const report = analyseLine({ brief }, variant, shelf, { open });
    return { report, ms: performance.now() - start };
  },
  findings: async (joint, shop, onProgress) => allFindings(joint, shelfFor(shop), onProgress),
  importTest: async (kindId, bytes, name, onProgress) => {
    const kind = TEST_KINDS.find((k) => k.id === kindId)!;
    onProgress('Reading the file…');
    const read = importFile(kind, bytes, () => crypto.randomUUID().slice(0, 8));
    if (!read.ok) return read;
    const { recording, ...imported } = read.value;
    if (recording) onProgress(`Packing ${recording.data[0]?.length ?? 0} samples…`);
    return {
      ok: true,
      value: { imported, recording: recording && (await recordings.keep(name, packRecording(recording))) },
    };
  },
  desk: async (brief, variant, shop, each, holds) => {
    const shelf = shelfFor(shop);
    return {
      rows: ratioDesk({ brief }, variant, shelf, each, 4, holds),
      reach: waysOut({ brief }, variant, shelf, each ** Math.max(1, variant.stages.length), holds),
    };
  },
  readers: async (shop) => factorReaders(shelfFor(shop)),
  play: async (ratios, play, samples) => {
    const start = performance.now();
    const spread = playSpread(
      ratios.map((ratio) => ({ ratio })),
      play,
      samples,
    );
    return { spread, ms: performance.now() - start };
  },
  courses: async (kind, params, duty, shop) => {
    const opened = open({ id: '', kind, params }, shelfFor(shop));
    return opened.ok ? (opened.value.courses?.(duty) ?? []) : [];
  },
  map: async (kind, params, duty, shop) => {
    const opened = open({ id: '', kind, params }, shelfFor(shop));
    return opened.ok ? opened.value.map?.(duty) : undefined;
  },
  movers: async (joint, variant, shop, at, onProgress) => {
    let told = 0;
    return movers(joint, variant, shelfFor(shop), at, 3, (share) => {
      if (share - told >= 0.1) {
        told = share;
        onProgress(share);
      }
      return true;
    });
  },
};

registerKinds();
expose(api);
