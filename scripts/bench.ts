// Figures of speed, one JSON object a line: the core bundled as it ships, then the built app in Chromium.
// Usage: npm run bench [-- core|browser|tasks|first]. Medians; figures move with the machine, so the limits are checked by eye.
import { chromium, type ElementHandle, type Locator, type Page } from '@playwright/test';
import { build } from 'esbuild';
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { browserUse } from '../e2e/browser.ts';

const root = fileURLToPath(new URL('..', import.meta.url));
const say = (name: string, value: number, unit: string, limit?: number) =>
  console.log(
    JSON.stringify({ name, value: Number(value.toPrecision(4)), unit, ...(limit !== undefined && { limit }) }),
  );
const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;

function time(work: () => void, warm = 1000, runs = 600): number {
  for (let i = 0; i < warm; i++) work();
  const list: number[] = [];
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    work();
    list.push(performance.now() - start);
  }
  return median(list);
}

async function core(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'gristmill-bench-'));
  const file = join(folder, 'core.mjs');
  await build({
    stdin: {
      contents:
        "export * from './core/src/index.ts'; export { lineJam } from './core/src/fit/line-jam.ts'; export { fitSheet } from './core/src/fit/fit-sheet.ts'; export { registerKinds } from './core/src/stage/catalogue.ts';",
      resolveDir: root,
      loader: 'ts',
    },
    bundle: true,
    platform: 'node',
    format: 'esm',
    outfile: file,
    logLevel: 'error',
  });
  const c = (await import(pathToFileURL(file).href)) as typeof import('../core/src/index.ts') &
    typeof import('../core/src/stage/catalogue.ts') &
    typeof import('../core/src/fit/line-jam.ts') &
    typeof import('../core/src/fit/fit-sheet.ts');
  c.registerKinds();
  const text = readFileSync(join(root, 'demo/body-yaw.json'), 'utf8');
  const read = c.readJointFile(text);
  if (!read.ok) throw new Error(read.problem.what);
  const joint = read.value;
  const variant = joint.variants[0]!;
  const shelf = c.makeShelf();
  const belt = c.stageKind('belt')!;
  const params = variant.stages[1]!.params;
  const duty = { torque: 5, torqueRms: 3, speed: 2 };
  const planetary = c.stageKind('planetary')!;
  const stageOf = (kind: typeof belt, p: unknown) => {
    const opened = kind.open(p, shelf);
    if (!opened.ok) throw new Error(opened.problem.what);
    return opened.value;
  };
  const report = (kind: typeof belt, p: unknown, at: typeof duty) => stageOf(kind, p).report(at);
  const set = { ...(planetary.defaults({ ratio: 5, torque: 4, size: Infinity, shelf: c.makeShelf() }) as object) };
  say(
    'planetary set, geometry and analysis with bands',
    time(() => report(planetary, { ...set }, { torque: 4, torqueRms: 2, speed: 1 }), 60, 200),
    'ms',
    8,
  );
  const wing = c.readJointFile(readFileSync(join(root, 'demo/wing-root.json'), 'utf8'));
  if (!wing.ok) throw new Error(wing.problem.what);
  const whole = wing.value.variants.find((v) => v.id === wing.value.activeVariant)!;
  const remembered = c.rememberingOpener();
  let walls = 3e-3;
  say(
    'section of a line of planetary and belt after a change of its walls',
    time(
      () => c.sectionSheet({ ...whole, housing: { ...whole.housing!, wall: (walls += 1e-6) } }, 0.3, shelf, remembered),
      20,
      60,
    ),
    'ms',
    50,
  );
  const ring = c.gear({ module: 1e-3, teeth: 96, ring: true, cutter: 36 });
  say(
    'outline of a 96-tooth ring, flattened to 2 µm',
    time(() => c.flatten(c.gearOutline(ring), 2e-6), 60, 200),
    'ms',
    3,
  );
  // A fresh copy each time, as after a change: nothing of the last analysis can be reused.
  const copies = Array.from({ length: 1600 }, () => structuredClone(variant));
  let next = 0;
  const lobed = { torque: 4, torqueRms: 2, speed: 1 };
  const kindOf = (id: string, ratio: number) => {
    const kind = c.stageKind(id)!;
    return { kind, params: kind.defaults({ ratio, torque: 4, size: Infinity, shelf }) };
  };
  const disc = kindOf('cycloidal', 23);
  say(
    'cycloidal stage, analysis with contact equilibrium and bands',
    time(() => report(disc.kind, { ...disc.params }, lobed), 10, 40),
    'ms',
    25,
  );
  say(
    'cycloidal stage, gaps of all pins over a turn',
    time(() => stageOf(disc.kind, { ...disc.params }).map!(lobed), 10, 40),
    'ms',
    30,
  );
  say(
    'profile of a 40-lobe disc at 1 µm',
    time(() => c.flatten(c.discOutline({ pins: 41, circle: 0.05, pin: 2e-3, throw: 0.8e-3 }, 5e-7), 5e-7), 30, 100),
    'ms',
    3,
  );
  const plates = kindOf('ring-plate', 17);
  say(
    'ring-plate stage, analysis with bands',
    time(() => report(plates.kind, { ...plates.params }, lobed), 5, 20),
    'ms',
  );
  const wave = kindOf('strain-wave', 45);
  say(
    'strain-wave stage, analysis with bands',
    time(() => report(wave.kind, { ...wave.params }, lobed), 5, 20),
    'ms',
  );
  say(
    'strain-wave clearance map, all teeth at 180 angles',
    time(() => stageOf(wave.kind, { ...wave.params }).map!(lobed), 10, 40),
    'ms',
    60,
  );
  const through = <T>(search: Generator<unknown, T>): { value: T; ms: number } => {
    const start = performance.now();
    let step = search.next();
    while (!step.done) step = search.next();
    return { value: step.value, ms: performance.now() - start };
  };
  const made = c.readJointFile(readFileSync(join(root, 'demo/wing-root.json'), 'utf8'));
  if (!made.ok) throw new Error(made.problem.what);
  const printed = made.value.variants.find((v) => v.id === 'b')!;
  const ownShop = c.makeShelf(c.editsFor(made.value, {}));
  // Two planetary sets and two spur stages behind them: three stages whose gaps are drawn one by one.
  const spur = c.readParams('spur', c.stageKind('spur')!.defaults({ ratio: 2, torque: 5, size: Infinity, shelf }));
  const geared = {
    ...printed,
    stages: [printed.stages[0]!, ...['x', 'y'].map((id) => ({ id, kind: 'spur', params: spur.ok ? spur.value : {} }))],
  } as typeof printed;
  const specimens = () =>
    through(
      c.lineJam({ variant: geared, brief: made.value.brief, day: '2026-11-29', rise: 15, samples: 100_000 }, ownShop),
    ).ms;
  specimens();
  say('10⁵ specimens of three geared stages, one core', median([specimens(), specimens(), specimens()]), 'ms', 1000);
  say(
    'fits of the Wing root line, every pair and part',
    time(() => c.fitSheet(printed, ownShop, '2026-11-29'), 2, 7),
    'ms',
  );
  const ask = { joint, variant, shelf };
  const look = through(c.findLines({ ...ask, first: true, stages: 2 }));
  say('a first look for lines, one core', look.ms, 'ms', 1000);
  const screened = through(c.screenStages(ask));
  say('stages screened a second, one core', screened.value.screened / (screened.ms / 1000), '1/s', 1250);
  for (const { id, name } of c.stageKinds()) {
    const one = through(c.screenStages({ ...ask, kinds: [id] }));
    say(`screening: ${name.toLowerCase()}, a stage at five torques`, (1000 * one.ms) / one.value.screened, 'µs');
  }
  const composed = through(c.composeLines(ask, [screened.value]));
  say('lines found whole, after screening, one core', composed.ms / 1000, 's');
  say('lines looked at for that', composed.value.looked, '');
  say('of those judged by bounds, many at a time', (100 * (composed.value.pruned ?? 0)) / composed.value.looked, '%');
  say('memory in use after it', process.memoryUsage().heapUsed / 1e6, 'MB', 300);
  const turn = (n: number) => {
    const input = Float64Array.from({ length: n }, (_, i) => ((i < n / 2 ? i : n - i) * 1000) / n);
    return { input, output: input.map((x, i) => x / 20 + 2e-4 * Math.sin(x / 20) + (i < n / 2 ? -3e-4 : 3e-4)) };
  };
  const { input, output } = turn(1_000_000);
  const transmission = c.testKind('transmission')!;
  const recorded = {
    channels: [
      { id: 'input', name: 'in', quantity: 'angle' as const },
      { id: 'output', name: 'out', quantity: 'angle' as const },
    ],
    data: [input, output],
    rate: 0,
    malformed: 0,
    gaps: 0,
    notes: [],
  };
  say(
    'transmission of 10⁶ samples: resampling, orders, suspects',
    time(
      () =>
        void transmission.analyse(c.blankTest(transmission, { id: 't', buildId: '', date: '' }), {
          instruments: [],
          gravity: 9.81,
          orders: [],
          materials: [],
          ratio: 20,
          recording: recorded,
        }),
      1,
      5,
    ),
    'ms',
    1500,
  );
  let held = 0;
  const torque = Float64Array.from({ length: 2000 }, (_, i) => {
    const s = i / 500;
    return 5 * (s < 1 ? s : s < 3 ? 2 - s : s - 4);
  });
  const angle = torque.map((t, i) => {
    held = Math.max(t - 0.2, Math.min(t + 0.2, held));
    return (
      Math.sign(held) * (6e-4 + Math.min(1.2, Math.abs(held)) / 400 + Math.max(0, Math.abs(held) - 1.2) / 900) +
      1e-5 * Math.sin(i * 12.9898)
    );
  });
  say(
    'hysteresis fit of 2 000 points',
    time(() => void c.fitHysteresis(torque, angle), 3, 15),
    'ms',
    100,
  );
  say(
    'line analysis, two belt stages, with bands',
    time(() => c.analyseLine(joint, copies[next++ % 1600]!, shelf)),
    'ms',
    2,
  );
  const again = copies.map((v) => structuredClone(v));
  const four = (v: typeof variant) => ({
    ...v,
    stages: [...v.stages, ...structuredClone(v.stages)].map((x, i) => ({ ...x, id: `f${i}` })),
  });
  const fours = Array.from({ length: 700 }, () => structuredClone(four(variant)));
  say(
    'line analysis, four belt stages, with bands',
    time(() => c.analyseLine(joint, fours[next++ % 700]!, shelf), 350, 300),
    'ms',
    5,
  );
  const loose = [3, 4, 5, 2].map((ratio) => ({ ratio }));
  say(
    'play by 100 000 samples, four stages',
    time(
      () =>
        void c.playSpread(
          loose,
          loose.map(() => [1e-3, 0, 2e-3] as const),
          100_000,
        ),
      3,
      15,
    ),
    'ms',
    150,
  );
  say(
    'ratio desk, one to four stages',
    time(() => c.ratioDesk(joint, variant, shelf, 0.94), 5, 25),
    'ms',
  );
  say(
    'ways out of an impossible demand',
    time(
      () =>
        c.waysOut(
          {
            brief: {
              ...joint.brief,
              cases: [{ ...joint.brief.cases[0]!, load: 9, speed: 9 } as (typeof joint.brief.cases)[number]],
            },
          },
          variant,
          shelf,
          0.88,
        ),
      3,
      15,
    ),
    'ms',
  );
  say(
    'line analysis without bands',
    time(() => c.analyseLine(joint, again[next++ % 1600]!, shelf, { bands: false })),
    'ms',
  );
  const many = Array.from({ length: 1600 }, () => ({ ...params }));
  say(
    'belt stage, numbers only',
    time(() => void stageOf(belt, many[next++ % 1600]!).load(duty)),
    'ms',
  );
  let crank = 0;
  const turning = stageOf(belt, params);
  say(
    'belt drawing at a new crank angle',
    time(() => void turning.drawing((crank += 0.01), { duty })),
    'ms',
  );
  say(
    'what moves a figure',
    time(() => c.movers(joint, variant, shelf, { stageId: undefined, figureId: 'stiffness' }), 5, 25),
    'ms',
  );
  say(
    'sizing two belt stages',
    time(() => c.sizeLine(joint, variant, shelf), 5, 25),
    'ms',
  );
  const big = { ...params, z1: 96, bore1: 0.008 };
  const parts = c.partsOf('belt', { ...big, beltTeeth: 198, section: 'R3' }, shelf);
  if (parts.ok)
    say(
      'outline of a 96-tooth pulley at 2 µm as DXF',
      time(() => c.writeDxf({ title: 'x', note: '', curves: parts.value[0]!.curves }), 20, 60),
      'ms',
    );
  say(
    'reading a joint file',
    time(() => c.readJointFile(text), 50, 200),
    'ms',
  );
  rmSync(folder, { recursive: true });
}

/** A joint with 500 tests, made from the demo's. */
function manyTests(): string {
  const joint = JSON.parse(readFileSync(join(root, 'demo/body-yaw.json'), 'utf8')) as {
    id: string;
    name: string;
    tests: { id: string; readings: { id: string }[] }[];
  };
  joint.id = 'bench-500';
  joint.name = 'Five hundred tests';
  joint.tests = Array.from({ length: 500 }, (_, i) => ({ ...structuredClone(joint.tests[i % 2]!), id: `t${i}` }));
  return JSON.stringify(joint);
}

const PLOTS = 'main path.recharts-curve';
const STIFFNESS = '[data-limit="stiffness"] [data-figure]';

/** From the key that accepts a value in a field to the frame in which what it moves has changed; median of fifteen. */
async function redraw(page: Page, label: string, watched: string): Promise<number> {
  // tsx marks functions with a helper of its own, which the page does not have.
  await page.evaluate('globalThis.__name = (f) => f');
  return page.evaluate(
    async ([name, selector]) => {
      const field = [...document.querySelectorAll('label')].find((l) => l.textContent === name)!;
      const input = document.getElementById(field.getAttribute('for')!)!;
      input.focus();
      const shown = () =>
        [...document.querySelectorAll(selector!)].map((e) => e.getAttribute('d') ?? e.textContent).join();
      const list: number[] = [];
      for (let i = 0; i < 15; i++) {
        const before = shown();
        const start = performance.now();
        input.dispatchEvent(
          new KeyboardEvent('keydown', { key: i % 2 ? 'ArrowDown' : 'ArrowUp', shiftKey: true, bubbles: true }),
        );
        while (shown() === before) await new Promise((done) => requestAnimationFrame(done));
        list.push(performance.now() - start);
        await new Promise((done) => setTimeout(done, 120));
      }
      return list.sort((a, b) => a - b)[7]!;
    },
    [label, watched],
  );
}

/** The built app on a server of its own in a fresh browser. */
async function served(work: (page: Page, base: string) => Promise<void>): Promise<void> {
  if (!existsSync(join(root, 'web/dist/index.html'))) throw new Error('Build the app first: npm run build.');
  const port = 4640;
  const server = spawn('npx', ['--no-install', 'tsx', 'server/src/main.ts'], {
    cwd: root,
    env: { ...process.env, PORT: String(port) },
    detached: true,
  });
  try {
    const base = `http://127.0.0.1:${port}`;
    for (let i = 0; i < 100; i++) {
      if (
        await fetch(`${base}/health`).then(
          (r) => r.ok,
          () => false,
        )
      )
        break;
      await new Promise((done) => setTimeout(done, 100));
    }
    const chrome = await chromium.launch(browserUse.launchOptions);
    await work(await chrome.newPage({ viewport: browserUse.viewport }), base);
    await chrome.close();
  } finally {
    // The server runs in its own group, npx and all.
    process.kill(-server.pid!);
  }
}

async function browser(): Promise<void> {
  await served(async (page, base) => {
    await page.goto(base);
    await page.getByRole('button', { name: 'Open the demo set' }).click();
    await page.getByRole('link', { name: 'Body yaw' }).click();
    await page.waitForSelector('[data-limit="stiffness"] [data-figure]');
    await page.waitForSelector('path.recharts-curve');
    await redraw(page, 'Mass carried', PLOTS);
    say('a load changed to redrawn plots of the brief', await redraw(page, 'Mass carried', PLOTS), 'ms', 50);
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press('3');
    await page.waitForSelector('[data-drawing] path');
    await page.keyboard.press(']');
    await page.waitForTimeout(500);
    await redraw(page, 'Belt width', STIFFNESS);
    say('a parameter changed to redrawn view and tally', await redraw(page, 'Belt width', STIFFNESS), 'ms', 50);
    await page.getByRole('heading', { name: /Stage/ }).click();
    await page.getByRole('button', { name: 'Run' }).click();
    const frames = await page.evaluate(async () => {
      const at: number[] = [];
      const end = performance.now() + 3000;
      while (performance.now() < end) at.push(await new Promise<number>((done) => requestAnimationFrame(done)));
      return at;
    });
    say('frames a second while the crank runs', ((frames.length - 1) * 1000) / (frames.at(-1)! - frames[0]!), 'Hz', 60);
    say('longest frame while the crank runs', Math.max(...frames.slice(1).map((t, i) => t - frames[i]!)), 'ms');
    await page.getByRole('button', { name: 'Stop' }).click();
    await page.getByRole('link', { name: 'Gristmill' }).click();
    const file = join(mkdtempSync(join(tmpdir(), 'gristmill-bench-')), 'many.json');
    writeFileSync(file, manyTests());
    await page.getByLabel('Joint file to import').setInputFiles(file);
    await page.getByRole('link', { name: 'Five hundred tests' }).waitFor();
    const times: number[] = [];
    for (let i = 0; i < 5; i++) {
      times.push(
        await page.evaluate(async () => {
          const start = performance.now();
          [...document.querySelectorAll('a')].find((a) => a.textContent === 'Five hundred tests')!.click();
          while (!document.querySelector('[data-limit="torque"] [data-figure]') || !document.querySelector('main h1'))
            await new Promise((done) => requestAnimationFrame(done));
          return performance.now() - start;
        }),
      );
      await page.waitForSelector('[data-limit="play"] [data-found]');
      await page.getByRole('link', { name: 'Gristmill' }).click();
      await page.getByRole('link', { name: 'Five hundred tests' }).waitFor();
    }
    say('opening a joint with 500 tests', median(times), 'ms', 300);
  });
}

/** A joint of thirty variants that follow their brief, each tested many times. */
function manyVariants(): string {
  const joint = JSON.parse(manyTests()) as {
    id: string;
    name: string;
    variants: { id: string; name: string; follows: boolean }[];
    builds: { id: string; variantId: string; name: string }[];
    tests: { buildId: string }[];
  };
  joint.id = 'bench-30';
  joint.name = 'Thirty variants';
  const [variant, build] = [joint.variants[0]!, joint.builds[0]!];
  joint.variants = Array.from({ length: 30 }, (_, i) => ({
    ...structuredClone(variant),
    id: i ? `v${i}` : variant.id,
    name: `V${i}`,
    follows: i % 6 === 1,
  }));
  joint.builds = joint.variants.map((v, i) => ({
    ...build,
    id: i ? `b${i}` : build.id,
    variantId: v.id,
    name: `B${i}`,
  }));
  joint.tests.forEach((t, i) => (t.buildId = joint.builds[i % 30]!.id));
  return JSON.stringify(joint);
}

interface TraceEvent {
  readonly name: string;
  readonly ph: string;
  readonly pid: number;
  readonly tid: number;
  readonly tdur?: number;
}

/** Longest task of the page's main thread in a trace, in milliseconds of its own time: what waits for a core does not count. */
function longestTask(trace: Buffer): number {
  const { traceEvents: events } = JSON.parse(trace.toString()) as { traceEvents: TraceEvent[] };
  const painted = events.find((e) => e.name === 'Paint' || e.name === 'Layout' || e.name === 'UpdateLayoutTree');
  if (!painted) return 0;
  const tasks = events.filter(
    (e) => e.ph === 'X' && e.name.endsWith('RunTask') && e.pid === painted.pid && e.tid === painted.tid,
  );
  return tasks.reduce((most, e) => Math.max(most, e.tdur ?? 0), 0) / 1000;
}

/** What a person does, each with the longest task it puts on the main thread. */
async function tasks(): Promise<void> {
  await served(async (page, base) => {
    const chrome = page.context().browser()!;
    // What to press is looked up before the trace begins: looking it up by its role is work of the page's as well.
    const step = async (name: string, find: Locator | undefined, act: (on: ElementHandle) => Promise<unknown>) => {
      await page.waitForTimeout(400);
      const on = (await (find ?? page.locator('body')).first().elementHandle()) as ElementHandle;
      await chrome.startTracing(page, { categories: ['devtools.timeline', 'disabled-by-default-devtools.timeline'] });
      await act(on);
      await page.waitForTimeout(700);
      say(`longest task: ${name}`, longestTask(await chrome.stopTracing()), 'ms', 50);
    };
    const press = (on: ElementHandle) => on.evaluate((e) => (e as HTMLElement).click());
    const view = (name: RegExp) => page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name });
    const go = async (name: RegExp) => {
      await view(name).first().click();
      await page.waitForTimeout(700);
    };
    await page.goto(base);
    await page.getByRole('button', { name: 'Open the demo set' }).click();
    for (const [file, text] of [
      ['many.json', manyTests()],
      ['thirty.json', manyVariants()],
    ] as const) {
      const path = join(mkdtempSync(join(tmpdir(), 'gristmill-bench-')), file);
      writeFileSync(path, text);
      await page.getByLabel('Joint file to import').setInputFiles(path);
      await page.waitForTimeout(1500);
    }
    for (const joint of ['Neck lift', 'Five hundred tests', 'Thirty variants']) {
      await step(`${joint}: opening`, page.getByRole('link', { name: joint }), press);
      await step(
        `${joint}: a load changed`,
        page.getByRole('textbox', { name: 'Mass carried', exact: true }),
        async (f) => {
          for (const key of ['ArrowUp', 'ArrowUp', 'ArrowDown']) {
            await f.press(key);
            await page.waitForTimeout(150);
          }
        },
      );
      await step(`${joint}: undo`, undefined, () => page.keyboard.press('Control+z'));
      for (const name of [/^Line/, /^Stage/, /^Make/, /^Bench/, /^Review/, /^Brief/])
        await step(`${joint}: view ${name.source.slice(1)}`, view(name), press);
      await go(/^Stage/);
      await step(`${joint}: crank`, undefined, async () => {
        await page.keyboard.press(' ');
        await page.waitForTimeout(1500);
        await page.keyboard.press(' ');
      });
      await go(/^Bench/);
      await step(`${joint}: new test`, page.getByRole('button', { name: 'New test' }), press);
      const kind = page.getByRole('dialog').getByRole('button', { name: /^Play at a lever/ });
      await step(`${joint}: its kind chosen`, kind, press);
      await step(`${joint}: a reading typed`, page.getByRole('textbox', { name: 'difference' }), async (f) => {
        await f.fill('0.4 mm');
        await f.press('Enter');
      });
      if (joint === 'Neck lift') {
        await step(`${joint}: live rig`, page.getByRole('button', { name: 'Live rig' }), press);
        await page.getByRole('combobox', { name: 'Pace' }).selectOption('12');
        await step(`${joint}: recording`, page.getByRole('button', { name: 'Record', exact: true }), async (on) => {
          await press(on);
          await page.waitForTimeout(2500);
        });
        await step(`${joint}: into a test`, page.getByRole('button', { name: 'Take the recording' }), press);
      }
      await page.getByRole('link', { name: 'Gristmill' }).click();
    }
  });
}

/** What a stranger waits for: on a machine of a quarter of this one's speed, and with a shelf of three hundred joints. */
async function first(): Promise<void> {
  await served(async (page, base) => {
    // What reads these sources keeps the names of functions by a helper that the page does not have.
    await page.addInitScript('globalThis.__name = (f) => f');
    const session = await page.context().newCDPSession(page);
    await session.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    await session.send('Network.setCacheDisabled', { cacheDisabled: true });
    const paints: number[] = [];
    const usable: number[] = [];
    for (let i = 0; i < 5; i++) {
      await page.goto('about:blank');
      await page.goto(base, { waitUntil: 'commit' });
      await page.getByRole('button', { name: 'New joint' }).first().waitFor();
      usable.push(await page.evaluate(() => performance.now()));
      paints.push(
        await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? NaN),
      );
    }
    say('first paint, a quarter of the speed', median(paints), 'ms', 1000);
    say('usable, a quarter of the speed', median(usable), 'ms', 2000);
    await session.send('Emulation.setCPUThrottlingRate', { rate: 1 });
    await page.getByRole('button', { name: 'Open the demo set' }).click();
    await page.getByRole('link', { name: 'Wing root' }).waitFor();
    await page.evaluate(async () => {
      const done = <T>(r: IDBRequest<T>) =>
        new Promise<T>((yes, no) => ((r.onsuccess = () => yes(r.result)), (r.onerror = () => no(r.error))));
      const db = await done(indexedDB.open('gristmill'));
      const tx = db.transaction(['joints', 'history'], 'readwrite');
      const [joints, history] = [tx.objectStore('joints'), tx.objectStore('history')];
      const pointers = (await done(joints.getAll())) as { id: string; name: string; rev: string }[];
      const newest = await Promise.all(
        pointers.map((p) => done(history.get(`${p.id}/${p.rev}`) as IDBRequest<object>)),
      );
      for (let i = 0; i < 296; i++) {
        const p = pointers[i % pointers.length]!;
        const [id, name] = [`bench-${i}`, `${p.name} ${i}`];
        joints.put({ ...p, id, name, saves: (p as unknown as { saves: unknown[] }).saves.slice(-1) }, id);
        history.put({ ...newest[i % pointers.length], id, name }, `${id}/${p.rev}`);
      }
      await new Promise((yes) => (tx.oncomplete = yes));
      db.close();
    });
    const [seen, times]: number[][] = [[], []];
    for (let i = 0; i < 5; i++) {
      await page.goto(`${base.replace(/\/$/, '')}/help`);
      await page.getByRole('link', { name: 'Gristmill' }).waitFor();
      const [a, b] = await page.evaluate(async () => {
        const start = performance.now();
        [...document.querySelectorAll('a')].find((x) => x.textContent === 'Gristmill')!.click();
        const rows = () => document.querySelectorAll('[data-joint]').length;
        while (rows() < 10) await new Promise((later) => requestAnimationFrame(later));
        const first = performance.now() - start;
        while (rows() < 300) await new Promise((later) => requestAnimationFrame(later));
        return [first, performance.now() - start] as const;
      });
      seen!.push(a);
      times!.push(b);
    }
    say('a shelf of 300 joints, a screenful', median(seen!), 'ms', 500);
    say('a shelf of 300 joints, all of it', median(times!), 'ms');
  });
}

const which = process.argv[2];
if (which === undefined || which === 'core') await core();
if (which === undefined || which === 'browser') await browser();
if (which === undefined || which === 'tasks') await tasks();
if (which === undefined || which === 'first') await first();
