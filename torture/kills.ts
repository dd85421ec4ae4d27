import { expect, type BrowserContext, type Page } from '@playwright/test';
import { spawn } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { dice } from '../core/test/helpers.ts';
import { Killable } from './chromium.ts';

/** Of the server it starts; another where two run side by side. */
const PORT = Number(process.env['PORT'] ?? 4577);
const BASE = `http://127.0.0.1:${PORT}`;

/** What a round does until it is killed. */
type Work = 'edits' | 'restores' | 'duplicates' | 'shop' | 'take-overs' | 'import';

interface Tally {
  rounds: number;
  midWrite: number;
  acknowledged: number;
  lost: number;
  unreadable: number;
  /** Rounds of each sort. */
  readonly of: Record<string, number>;
  readonly faults: string[];
}

/**
 * Put into every page: tells of each transaction that writes as it begins and ends, and of each save as the app itself
 * calls it stored.
 * What is told arrives in the order in which it happened; what does not arrive before the kill counts for nothing.
 */
function watch(): void {
  const say = (text: string) => console.debug(`torture ${text}`);
  const transaction = IDBDatabase.prototype.transaction;
  IDBDatabase.prototype.transaction = function (
    this: IDBDatabase,
    stores: string | Iterable<string>,
    mode?: IDBTransactionMode,
    options?: IDBTransactionOptions,
  ) {
    const tx = transaction.call(this, stores, mode, options);
    if (mode === 'readwrite') {
      say('w+');
      tx.addEventListener('complete', () => say('w-'));
      tx.addEventListener('abort', () => say('w-'));
    }
    return tx;
  };
  // The mark of the frame says "saved" of what is shown; the field beside it says what that is.
  const marks = new MutationObserver(() => {
    const mark = document.querySelector('[data-save]')?.getAttribute('data-save');
    const field = [...document.querySelectorAll<HTMLInputElement>('input')].find(
      (i) => i.labels?.[0]?.textContent === 'Mass carried',
    );
    if (mark === 'saved' && field) say(`saved ${field.value}`);
  });
  addEventListener('DOMContentLoaded', () =>
    marks.observe(document, { subtree: true, attributes: true, attributeFilter: ['data-save'], childList: true }),
  );
}

/** A joint large enough that a write of it takes a while. */
function largeJoint(): string {
  const joint = JSON.parse(readFileSync(new URL('../demo/body-yaw.json', import.meta.url), 'utf8')) as {
    id: string;
    name: string;
    tests: { id: string; kind: string }[];
  };
  // Quick to analyse, long to write.
  const play = joint.tests.find((t) => t.kind === 'play-lever')!;
  const tests = Array.from({ length: 250 }, (_, i) => ({
    ...structuredClone(play),
    id: `t${i}`,
    notes: `${i} `.repeat(4000).slice(0, 15_000),
  }));
  return JSON.stringify({ ...joint, id: 'large', name: 'Large', tests });
}

/** Rows of a recording. */
function recordingFile(rows: number): string {
  const path = join(tmpdir(), `torture-${rows}.csv`);
  const lines = Array.from(
    { length: rows },
    (_, i) => `${(i / 1000).toFixed(3)},${(20 + 8 * (1 - Math.exp(-i / rows)) + 0.01 * (i % 7)).toFixed(3)}`,
  );
  writeFileSync(path, `time (s),temperature (°C)\n${lines.join('\n')}\n`);
  return path;
}

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** One run of rounds on one profile. */
class Run {
  readonly tally: Tally = { rounds: 0, midWrite: 0, acknowledged: 0, lost: 0, unreadable: 0, of: {}, faults: [] };
  private readonly browser = new Killable();
  private context: BrowserContext | undefined;
  /** Writes under way, as far as has been told. */
  private writing = 0;
  private wrote: (() => void) | undefined;
  /**
   * The last value that was called saved, in tenths of a kilogram; what is shown after a kill may be later, never
   * earlier.
   */
  private mass = 0;
  private copies = new Set<string>();
  private factor = 0;

  constructor(
    private readonly roll: (n: number) => number,
    private readonly rows: number,
  ) {}

  private fault(text: string): void {
    this.tally.faults.push(`round ${this.tally.rounds}: ${text}`);
  }

  private async page(path: string): Promise<Page> {
    const page = await this.context!.newPage();
    page.on('console', (m) => m.text().startsWith('torture ') && this.told(m.text().slice(8)));
    // The runner's compiler puts a helper of this name into functions; a page has none.
    await page.addInitScript('globalThis.__name ??= (f) => f');
    await page.addInitScript(watch);
    await page.goto(BASE + path);
    return page;
  }

  private told(text: string): void {
    if (text === 'w+') {
      this.writing++;
      this.wrote?.();
    } else if (text === 'w-') this.writing--;
    else if (text.startsWith('saved ')) {
      const mass = Math.round(Number.parseFloat(text.slice(6)) * 10);
      if (Number.isFinite(mass)) {
        this.mass = mass;
        this.tally.acknowledged++;
      }
    }
  }

  async begin(): Promise<void> {
    this.context = await this.browser.start();
    const page = await this.page('/');
    await page
      .getByLabel('Joint file to import')
      .setInputFiles({ name: 'large.json', mimeType: 'application/json', buffer: Buffer.from(largeJoint()) });
    await page.getByRole('link', { name: 'Large', exact: true }).waitFor();
    await this.kill('browser');
  }

  end(): Promise<void> {
    return this.browser.end();
  }

  private async kill(what: 'browser' | 'renderer'): Promise<void> {
    await this.browser.kill(what);
    if (what === 'browser') this.context = undefined;
    else for (const p of this.context!.pages()) await Promise.race([p.close().catch(() => undefined), pause(2000)]);
    this.writing = 0;
  }

  /** Looks at what the last kill has left: everything opens, and nothing that was called stored is missing. */
  private async look(): Promise<Page> {
    this.context ??= await this.browser.start();
    const page = await this.page('/');
    await page.getByRole('link', { name: 'Large', exact: true }).waitFor({ timeout: 20_000 });
    const bad = await page.locator('[data-bad]').count();
    if (bad) {
      this.tally.unreadable += bad;
      this.fault(`${bad} joints cannot be shown: ${(await page.locator('[data-bad]').allInnerTexts()).join(' ')}`);
    }
    const names = await page
      .locator('[data-joint]')
      .evaluateAll((rows) => rows.map((r) => r.getAttribute('data-joint')!));
    const missing = [...this.copies].filter((c) => !names.includes(c));
    if (missing.length) {
      this.tally.lost += missing.length;
      this.fault(`gone: ${missing.join(', ')}`);
    }
    this.copies = new Set(names.filter((n) => n !== 'Large'));
    await page.getByRole('link', { name: 'Large', exact: true }).click();
    const field = page.getByRole('textbox', { name: 'Mass carried' });
    await field.waitFor({ timeout: 20_000 });
    await expect(field).toBeEnabled({ timeout: 10_000 });
    if (await page.getByText('could not be read').count()) {
      this.tally.unreadable++;
      this.fault('the last save could not be read');
    }
    const shown = Math.round(Number.parseFloat(await field.inputValue()) * 10);
    if (shown < this.mass) {
      this.tally.lost++;
      this.fault(`${this.mass / 10} kg was called saved, and ${shown / 10} kg is there`);
    }
    this.mass = shown;
    return page;
  }

  /** Kills at a random moment, more often than not while a write is under way. */
  private async killSoon(): Promise<void> {
    if (this.roll(10) < 6) {
      // At the first write, or after a few that were called stored.
      for (let writes = this.roll(5); writes >= 0; writes--)
        await Promise.race([new Promise<void>((done) => (this.wrote = done)), pause(3000)]);
      this.wrote = undefined;
      if (this.roll(3) === 0) await pause(this.roll(25));
    } else await pause(50 + this.roll(3000));
    if (this.writing > 0) this.tally.midWrite++;
    await this.kill(this.roll(3) === 0 ? 'renderer' : 'browser');
  }

  async round(work: Work): Promise<void> {
    this.tally.rounds++;
    this.tally.of[work] = (this.tally.of[work] ?? 0) + 1;
    const page = await this.look();
    let over = false;
    const busy = (async () => {
      while (!over) await this[work](page);
    })().catch(() => undefined);
    await this.killSoon();
    over = true;
    // What was asked of a page that is dead may never be answered.
    await Promise.race([busy, pause(5000)]);
    // A page that was being opened when the others were killed would hold the joint.
    for (const p of this.context?.pages() ?? []) await Promise.race([p.close().catch(() => undefined), pause(2000)]);
  }

  /** Types a greater mass, and saves at once or leaves it to the app. */
  async edits(page: Page): Promise<void> {
    const field = page.getByRole('textbox', { name: 'Mass carried' });
    for (let i = 0; i <= this.roll(4); i++) await field.press('ArrowUp');
    if (this.roll(3)) await page.keyboard.press('Control+s');
    await pause(this.roll(120));
  }

  /** Restores the newest save before the last; what was called saved of it is less, so the count begins there. */
  async restores(page: Page): Promise<void> {
    await page.locator('[data-save]').click();
    const dialog = page.getByRole('dialog', { name: 'Earlier saves' });
    const restore = dialog.getByRole('button', { name: 'Restore' }).first();
    if (!(await restore.isVisible().catch(() => false)))
      return void (await page.keyboard.press('Escape'), await this.edits(page));
    // From here on the value may go down: nothing is claimed until it is called saved again.
    this.mass = 0;
    await restore.click();
    await pause(this.roll(700));
  }

  /** Duplicates on the shelf; a row that shows is stored. */
  async duplicates(page: Page): Promise<void> {
    if (!page.url().endsWith('/')) await page.getByRole('link', { name: 'Gristmill' }).click();
    const row = page.locator('[data-joint]');
    await row.first().waitFor();
    const names = await row.evaluateAll((rows) => rows.map((r) => r.getAttribute('data-joint')!));
    for (const n of names) if (n !== 'Large') this.copies.add(n);
    const copy = names.find((n) => n !== 'Large');
    if (copy && names.length > 4) {
      // So that there is room: deleting is a write as well.
      for (const n of names.filter((x) => x === copy)) this.copies.delete(n);
      await page
        .getByRole('button', { name: `More for ${copy}` })
        .first()
        .click();
      await page.getByRole('menuitem', { name: 'Delete' }).click();
    } else {
      await page.getByRole('button', { name: 'More for Large', exact: true }).click();
      await page.getByRole('menuitem', { name: 'Duplicate' }).click();
    }
    await pause(this.roll(400));
  }

  /** Changes a factor of the shop; another page hears when it is stored, as this one does. */
  async shop(page: Page): Promise<void> {
    if (!page.url().includes('/shop')) {
      await page.goto(`${BASE}/shop?shelf=factors`);
      await page.evaluate(
        () =>
          (new BroadcastChannel('gristmill').onmessage = (e) =>
            e.data.type === 'shop' && console.debug(`torture stored`)),
      );
    }
    const field = page.getByRole('textbox', { name: /^Belt, price per metre.*likely$/ });
    await field.waitFor();
    const shown = Number.parseFloat(await field.inputValue());
    if (shown + 1e-9 < this.factor) {
      this.tally.lost++;
      this.fault(`a factor of ${this.factor} was stored, and ${shown} is there`);
    }
    const next = shown >= 11 ? 4.5 : Math.round((shown + 0.05) * 100) / 100;
    if (next < shown) this.factor = 0;
    const stored = page.waitForEvent('console', { predicate: (m) => m.text() === 'torture stored', timeout: 4000 });
    stored.catch(() => undefined);
    await field.fill(String(next));
    await field.press('Enter');
    await stored;
    this.factor = next;
    this.tally.acknowledged++;
  }

  /** A second page takes the joint over and goes on, then the first takes it back. */
  async ['take-overs'](page: Page): Promise<void> {
    await this.edits(page);
    const other = await this.page(new URL(page.url()).pathname);
    await other.getByRole('button', { name: 'Work on it here instead' }).click();
    await expect(other.getByRole('textbox', { name: 'Mass carried' })).toBeEnabled();
    for (let i = 0; i < 3; i++) await this.edits(other);
    await other.close({ runBeforeUnload: false });
    await expect(page.getByRole('textbox', { name: 'Mass carried' })).toBeEnabled();
  }

  /** Imports a long recording into a test. */
  async import(page: Page): Promise<void> {
    if (!page.url().includes('/bench')) {
      await page
        .getByRole('navigation', { name: 'Views' })
        .getByRole('link', { name: /^Bench/ })
        .click();
      await page.getByRole('button', { name: 'New test' }).click();
      await page
        .getByRole('dialog')
        .getByRole('button', { name: /^Temperature/ })
        .click();
    }
    await page.getByLabel('Import readings: file').setInputFiles(recordingFile(this.rows));
    await page.getByText(new RegExp(`${this.rows}\\b.*samples`)).waitFor({ timeout: 60_000 });
    await pause(this.roll(800));
  }
}

/**
 * Kills the browser, or what shows its pages, at random moments of work, and looks at what is left.
 *
 * @param minutes ends early after so long
 * @param rows of the recordings that are imported
 */
export async function tortureKills(rounds: number, minutes: number, seed: number, rows: number): Promise<Tally> {
  const server = spawn(
    process.execPath,
    ['--import', 'tsx', new URL('../server/src/main.ts', import.meta.url).pathname],
    { env: { ...process.env, PORT: String(PORT) }, stdio: ['ignore', 'pipe', 'inherit'] },
  );
  await new Promise<void>((done, fail) => {
    server.stdout.on('data', (x) => String(x).includes('ready at') && done());
    server.once('exit', () => fail(new Error('the server did not start')));
  });
  const roll = dice(seed);
  const run = new Run(roll, rows);
  // Not by the time of day, which a machine may set while it runs.
  const until = performance.now() + minutes * 60_000;
  const works: Work[] = ['edits', 'edits', 'edits', 'restores', 'duplicates', 'shop', 'take-overs', 'import'];
  try {
    await run.begin();
    for (let i = 0; i < rounds && performance.now() < until; i++) {
      // An import takes long: now and then.
      const work = works[i % 16 === 7 ? 7 : roll(7)]!;
      const begun = performance.now();
      await Promise.race([
        run.round(work),
        pause(120_000).then(() => Promise.reject(new Error('it got nowhere in two minutes'))),
      ]).catch((error: unknown) => {
        throw new Error(`round ${i}, ${work}, after ${Math.round(performance.now() - begun)} ms: ${String(error)}`);
      });
      if (i % 25 === 24) console.log(JSON.stringify({ torture: 'kills, so far', ...run.tally }));
    }
    // What the last kill left is looked at as well.
    await run.round('edits');
  } finally {
    await run.end();
    server.kill('SIGTERM');
  }
  return run.tally;
}
