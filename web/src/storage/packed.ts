import {
  brokenLink,
  ok,
  readRecord,
  readTest,
  VERSION,
  type BenchTest,
  type Joint,
  type Result,
} from '@gristmill/core';

/**
 * A joint of many tests as it lies in storage: as text, each test apart. A browser keeps and fetches text by its bytes,
 * but takes a record apart and puts it together value by value, which holds the page for a hundred milliseconds where
 * there are five hundred tests.
 */
interface Packed {
  readonly packed: 1;
  /** The joint without its tests. */
  readonly joint: string;
  readonly tests: readonly string[];
}

/** Tests from which on a joint is packed. */
const MANY = 40;
/** How long a step may take, ms: half a frame. */
const STEP = 8;

/** Text of tests that are in memory; a test is never changed in place. */
const texts = new WeakMap<BenchTest, string>();

const textOf = (test: BenchTest): string => {
  const known = texts.get(test);
  if (known !== undefined) return known;
  const text = JSON.stringify(test);
  texts.set(test, text);
  return text;
};

const isPacked = (raw: unknown): raw is Packed =>
  typeof raw === 'object' && raw !== null && (raw as Partial<Packed>).packed === 1;

/** Does something for each of a list in steps shorter than a frame, and lets the page have its turn in between. */
async function inSteps<T>(list: readonly T[], work: (x: T, i: number) => void): Promise<void> {
  let begun = performance.now();
  for (const [i, x] of list.entries()) {
    work(x, i);
    if (performance.now() - begun < STEP) continue;
    await new Promise((done) => setTimeout(done));
    begun = performance.now();
  }
}

/** Writes a joint's tests out, in steps, so that `packed` has nothing left to do. */
export async function prepare(joint: Joint): Promise<void> {
  if (joint.tests.length >= MANY) await inSteps(joint.tests, textOf);
}

/** A joint as it is put into storage. */
export function packed(joint: Joint): Joint | Packed {
  if (joint.tests.length < MANY) return joint;
  return { packed: 1, joint: JSON.stringify({ ...joint, tests: [] }), tests: joint.tests.map(textOf) };
}

/** A record as it was before it was packed; what cannot be put together is left as it lies there. */
export function asRecord(raw: unknown): unknown {
  if (!isPacked(raw)) return raw;
  try {
    return { ...(JSON.parse(raw.joint) as object), tests: raw.tests.map((t) => JSON.parse(t) as unknown) };
  } catch {
    return raw;
  }
}

/** Reads a record from storage as `readRecord` does, in steps where there are many tests. */
export async function readStored(raw: unknown): Promise<Result<Joint>> {
  if (!isPacked(raw)) return readRecord(raw);
  let shell: unknown;
  try {
    shell = JSON.parse(raw.joint);
  } catch {
    return readRecord(raw);
  }
  // One of an earlier version is brought up as a whole.
  if ((shell as { version?: unknown }).version !== VERSION) return readRecord(asRecord(raw));
  const joint = readRecord(shell);
  if (!joint.ok) return joint;
  const tests: BenchTest[] = [];
  let wrong: Result<never> | undefined;
  await inSteps(raw.tests, (text, i) => {
    if (wrong) return;
    try {
      const test = readTest(JSON.parse(text), i);
      if (!test.ok) wrong = test;
      else {
        texts.set(test.value, text);
        tests.push(test.value);
      }
    } catch {
      wrong = readRecord(asRecord(raw)) as Result<never>;
    }
  });
  if (wrong) return wrong;
  const whole = { ...joint.value, tests };
  return brokenLink(whole) ?? ok(whole);
}
