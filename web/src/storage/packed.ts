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

/** What a text says, or the text itself where it is damaged. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

/**
 * A record as it was before it was packed. A test whose text is damaged is left as that text, so that a repair leaves it
 * out and keeps the others.
 */
export function asRecord(raw: unknown): unknown {
  if (!isPacked(raw)) return raw;
  const joint = parsed(raw.joint);
  return typeof joint === 'object' ? { ...joint, tests: raw.tests.map(parsed) } : raw;
}

/** Reads a record from storage as `readRecord` does, in steps where there are many tests. */
export async function readStored(raw: unknown): Promise<Result<Joint>> {
  if (!isPacked(raw)) return readRecord(raw);
  const shell = parsed(raw.joint);
  // One of an earlier version is brought up as a whole.
  if ((shell as { version?: unknown } | null)?.version !== VERSION) return readRecord(asRecord(raw));
  const joint = readRecord(shell);
  if (!joint.ok) return joint;
  const tests: BenchTest[] = [];
  let wrong: Result<never> | undefined;
  await inSteps(raw.tests, (text, i) => {
    if (wrong) return;
    const test = readTest(parsed(text), i);
    if (!test.ok) wrong = test;
    else {
      texts.set(test.value, text);
      tests.push(test.value);
    }
  });
  if (wrong) return wrong;
  const whole = { ...joint.value, tests };
  return brokenLink(whole) ?? ok(whole);
}
