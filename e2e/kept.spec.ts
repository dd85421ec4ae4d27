import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import type { BrowserContext, Page } from '@playwright/test';
import { expect, expectAccessible, openDemo, saved, test, type } from './fixture.ts';

/** Does something with a table of the browser's storage, behind the app's back. */
const table = <T>(page: Page, name: string, work: 'keys' | 'get' | 'put', key?: string, value?: unknown): Promise<T> =>
  page.evaluate(
    async ([name, work, key, value]) => {
      const db = await new Promise<IDBDatabase>((done, fail) => {
        const r = indexedDB.open('gristmill');
        r.onsuccess = () => done(r.result);
        r.onerror = () => fail(r.error);
      });
      const store = db
        .transaction(name as string, work === 'put' ? 'readwrite' : 'readonly')
        .objectStore(name as string);
      // What JSON has no word for comes as one.
      const plain = (x: unknown): unknown =>
        x === 'Infinity'
          ? Infinity
          : Array.isArray(x)
            ? x.map(plain)
            : typeof x === 'object' && x !== null
              ? Object.fromEntries(Object.entries(x).map(([k, y]) => [k, plain(y)]))
              : x;
      const request =
        work === 'keys'
          ? store.getAllKeys()
          : work === 'get'
            ? store.get(key as string)
            : store.put(plain(value), key as string);
      const out = await new Promise((done) => (request.onsuccess = () => done(request.result)));
      db.close();
      return out as T;
    },
    [name, work, key, value] as const,
  );

interface Pointer {
  rev: string;
  saves: { rev: string }[];
}
const mass = (page: Page) => page.getByRole('textbox', { name: 'Mass carried' });
const shelfPage = async (context: BrowserContext) => {
  const page = await context.newPage();
  await page.goto('/');
  await page.getByRole('link', { name: 'Body yaw', exact: true }).waitFor();
  return page;
};
const more = async (page: Page, joint: string, what: string) => {
  await page.getByRole('button', { name: `More for ${joint}`, exact: true }).click();
  await page.getByRole('menuitem', { name: what }).click();
};
const bring = (page: Page, name: string, body: string) =>
  page
    .getByLabel('Joint file to import')
    .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(body) });
const demoFile = (name: string) => JSON.parse(readFileSync(`demo/${name}.json`, 'utf8'));

test('a joint that cannot be read has a row of its own: exported raw, repaired with a list; the others stand', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('link', { name: 'Gristmill' }).click();
  const pointer = await table<Pointer>(page, 'joints', 'get', 'demo-neck-lift');
  const key = `demo-neck-lift/${pointer.rev}`;
  const record = await table<{ tests: { rig: object }[]; builds: { date: unknown }[] }>(page, 'history', 'get', key);
  record.builds[0]!.date = 17;
  Object.assign(record.tests[0]!.rig, { own: 'Infinity' });
  await table(page, 'history', 'put', key, record);
  // A date of an earlier version, as a person wrote it, opens.
  const other = await table<Pointer>(page, 'joints', 'get', 'demo-wing-root');
  const old = await table<object>(page, 'history', 'get', `demo-wing-root/${other.rev}`);
  await table(page, 'history', 'put', `demo-wing-root/${other.rev}`, { ...old, version: 3, changed: '27.11.2026' });
  await page.reload();
  await expect(page.locator('[data-joint]')).toHaveCount(4);
  await expect(page.locator('[data-joint="Wing root"] time')).toHaveText('27 Nov 2026');
  const bad = page.locator('[data-bad]');
  await expect(bad).toContainText('“Neck lift” cannot be shown');
  await expectAccessible(page);
  const [raw] = await Promise.all([
    page.waitForEvent('download'),
    bad.getByRole('button', { name: 'Export it as it lies in storage' }).click(),
  ]);
  expect(readFileSync(await raw.path(), 'utf8')).toContain('"own": "Infinity"');
  await bad.getByRole('button', { name: 'Repair it' }).click();
  await expect(page.locator('[data-mended]')).toContainText(/“Neck lift” is repaired.*date/s);
  await expect(page.locator('[data-joint]')).toHaveCount(5);
  await page.getByRole('link', { name: 'Neck lift', exact: true }).click();
  await page.locator('[data-save]').click();
  const dialog = page.getByRole('dialog', { name: 'Earlier saves' });
  await expect(dialog.getByRole('listitem').nth(1)).toContainText('cannot be read');
  const [again] = await Promise.all([
    page.waitForEvent('download'),
    dialog.getByRole('button', { name: 'Export it raw' }).click(),
  ]);
  expect(readFileSync(await again.path(), 'utf8')).toContain('"own": "Infinity"');
});

test('any identifier opens; a name of spaces, a date of another sort and what no file can hold are refused in words', async ({
  page,
}) => {
  await page.goto('/');
  const joint = demoFile('body-yaw');
  for (const [id, name] of [
    ['a/b?c#d', 'Odd one'],
    ['..', 'Dots'],
    ['%2f', 'Percent'],
  ]) {
    await bring(page, 'odd.json', JSON.stringify({ ...joint, id, name }));
    await page.getByRole('link', { name: name!, exact: true }).click();
    await expect(mass(page)).toBeVisible();
    await page.reload();
    await expect(page.locator('[data-limit="torque"] [data-figure]')).toContainText('N·m');
    await page.getByRole('link', { name: 'Gristmill' }).click();
  }
  for (const [change, why] of [
    [{ name: '  ' }, /damaged at name.*of spaces/],
    [{ changed: '27.11.2026' }, /must be a date/],
    [{ own: 'deep' }, /nested more than 64 deep/],
  ] as const) {
    const text = JSON.stringify({ ...joint, id: 'x', ...change }).replace(
      '"deep"',
      '['.repeat(3000) + ']'.repeat(3000),
    );
    await bring(page, 'bad.json', text);
    await expect(page.getByRole('alert').first()).toContainText(why);
  }
  await more(page, 'Dots', 'Rename');
  await page.getByRole('textbox', { name: 'Name' }).fill('   ');
  await page.getByRole('textbox', { name: 'Name' }).press('Enter');
  await expect(page.getByRole('alert').last()).toContainText('Name is empty.');
  await page.getByRole('textbox', { name: 'Name' }).press('Escape');
  await expect(page.getByRole('link', { name: 'Dots', exact: true })).toBeVisible();
});

test('what could not be opened again is refused at its field: an angle beyond all turning, a fifty-first variant', async ({
  page,
}) => {
  await openDemo(page, 'Bench');
  await page
    .getByRole('button', { name: /^Play at a lever/ })
    .first()
    .click();
  const angle = page.getByRole('textbox', { name: 'Output angle' });
  await angle.fill('60000°');
  await page.getByRole('textbox', { name: 'Difference' }).fill('0.4 mm');
  await page.getByRole('button', { name: 'Add reading' }).click();
  await expect(
    page.getByRole('main').getByRole('alert').filter({ hasText: 'Output angle: 60000° cannot be read here' }),
  ).toBeVisible();
  await expect(angle).toHaveValue('60000°');
  await angle.fill('30°');
  await page.getByRole('button', { name: 'Add reading' }).click();
  await expect(page.getByRole('main').getByRole('alert').filter({ hasText: 'at most' })).toHaveCount(0);
  await saved(page);
  await page.getByRole('link', { name: 'Gristmill' }).click();
  const joint = demoFile('wing-root');
  const variants = Array.from({ length: 50 }, (_, i) => ({ ...joint.variants[0], id: `v${i}`, name: `V${i}` }));
  await bring(
    page,
    'fifty.json',
    JSON.stringify({ ...joint, id: 'fifty', name: 'Fifty', variants, builds: [], tests: [], activeVariant: 'v0' }),
  );
  await page.getByRole('link', { name: 'Fifty', exact: true }).click();
  await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
  // Until its script has come the brief stays, whose cases are duplicated by a button of that name.
  await page
    .getByRole('region', { name: 'Sheet of the line' })
    .getByRole('button', { name: /^Duplicate/ })
    .click();
  await expect(page.getByText('A joint holds at most 50 variants.')).toBeVisible();
  await page.reload();
  await expect(page.locator('[data-limit="torque"] [data-figure]')).toContainText('N·m');
});

test('a page that shows the shelf of an hour ago renames, copies and exports what is there now', async ({
  page,
  context,
}) => {
  await openDemo(page);
  const old = await shelfPage(context);
  await type(page, 'Mass carried', '1.77 kg');
  await saved(page);
  // The old page neither hears nor sees anything: its renaming still lands on the newest save.
  await more(old, 'Body yaw', 'Rename');
  await old.getByRole('textbox', { name: 'Name' }).fill('Body turn');
  await old.getByRole('textbox', { name: 'Name' }).press('Enter');
  await expect(old.getByRole('link', { name: 'Body turn', exact: true })).toBeVisible();
  await expect(page.getByTitle('Body turn')).toBeVisible();
  await expect(mass(page)).toHaveValue('1.77 kg');
  await more(old, 'Body turn', 'Duplicate');
  const [file] = await Promise.all([old.waitForEvent('download'), more(old, 'Body turn', 'Export to a file')]);
  expect(JSON.parse(readFileSync(await file.path(), 'utf8')).brief.cases[0].load).toBeCloseTo(1.77, 12);
  await old.getByRole('link', { name: 'Body turn copy' }).click();
  await expect(mass(old)).toHaveValue('1.77 kg');
  // And the page that has it open goes on without a conflict.
  await type(page, 'Mass carried', '1.8 kg');
  await saved(page);
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('deleted in one tab, changed in another: said there, put back, and the undo leaves the change', async ({
  page,
  context,
}) => {
  await openDemo(page);
  const shelf = await shelfPage(context);
  await more(shelf, 'Body yaw', 'Delete');
  await expect(page.getByRole('alert')).toContainText('deleted in another tab');
  await type(page, 'Mass carried', '2.2 kg');
  await page.getByRole('button', { name: 'Put it back on the shelf' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await saved(page);
  await shelf.getByRole('button', { name: 'Undo' }).click();
  await expect(shelf.getByText('is on the shelf already')).toBeVisible();
  await shelf.getByRole('link', { name: 'Body yaw', exact: true }).click();
  await expect(mass(shelf)).toHaveValue('2.2 kg');
});

test('a take-over hands over what was not saved yet; an onlooker restores nothing; a closed tab lets go', async ({
  page,
  context,
}) => {
  await openDemo(page);
  await type(page, 'Mass carried', '1.5 kg');
  await saved(page);
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.getByText('This joint is open in another tab')).toBeVisible();
  await expect(mass(second)).toBeDisabled();
  await type(page, 'Mass carried', '1.6 kg');
  await expect(mass(second)).toHaveValue('1.6 kg');
  await second.getByRole('heading', { name: /Arm against gravity/ }).click();
  await second.keyboard.press('h');
  const dialog = second.getByRole('dialog', { name: 'Earlier saves' });
  await expect(dialog).toContainText('You are looking on');
  await expect(dialog.getByRole('button', { name: 'Restore' })).toHaveCount(0);
  await second.keyboard.press('Escape');
  // Typed, and taken over before the pause after which it would be saved.
  await mass(page).fill('1.93 kg');
  await mass(page).press('Enter');
  await second.getByRole('button', { name: 'Work on it here instead' }).click();
  await expect(mass(second)).toBeEnabled();
  await expect(mass(second)).toHaveValue('1.93 kg');
  await type(second, 'Mass carried', '2.1 kg');
  await saved(second);
  await expect(second.getByRole('alert')).toHaveCount(0);
  await expect(mass(page)).toHaveValue('2.1 kg');
  await second.close();
  // Nobody has it now: the first goes on by itself.
  await expect(mass(page)).toBeEnabled();
  await type(page, 'Mass carried', '2.2 kg');
  await saved(page);
});

test('two tabs in the shop: other factors side by side', async ({ page, context }) => {
  // One factor at a time: to find a field by its name among five hundred takes a second.
  const GRAVITY = 'Acceleration of gravity, likely';
  const EFFICIENCY = 'Synchronous belt stage, efficiency, likely';
  const shown = async (p: Page, label: string) => {
    await p.getByRole('textbox', { name: 'find' }).fill(label.replace(', likely', ''));
    return p.getByRole('textbox', { name: label });
  };
  await page.goto('/shop?shelf=factors');
  const second = await context.newPage();
  await second.goto('/shop?shelf=factors');
  await shown(page, GRAVITY);
  await shown(second, EFFICIENCY);
  await type(page, GRAVITY, '9.81');
  await type(second, EFFICIENCY, '95 %');
  await expect(await shown(second, GRAVITY)).toHaveValue(/^9\.81 /);
  await expect(await shown(page, EFFICIENCY)).toHaveValue('95 %');
  await page.reload();
  await expect(await shown(page, GRAVITY)).toHaveValue(/^9\.81 /);
  await expect(await shown(page, EFFICIENCY)).toHaveValue('95 %');
});

test('a recording of a copy leaves the original its own; deleting for good frees what it promises', async ({
  page,
}) => {
  await openDemo(page, 'Bench');
  await page.getByRole('button', { name: 'New test' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Temperature/ })
    .click();
  const rows = (rise: number) =>
    'time (s),temperature ' +
    `(°C)\n${Array.from({ length: 30_000 }, (_, i) => `${i},${(20 + rise * (1 - Math.exp(-i / 4000)) + Math.sin(i * i) / 9).toFixed(4)}`).join('\n')}`;
  const bringRows = (rise: number) =>
    page
      .getByLabel('Import readings: file')
      .setInputFiles({ name: 'warm.csv', mimeType: 'text/csv', buffer: Buffer.from(rows(rise)) });
  const found = page.getByRole('region', { name: 'Tests by build' }).locator('button[aria-current] .num');
  await bringRows(30);
  await expect(found).toContainText('°C');
  const first = await found.innerText();
  await saved(page);
  await page.getByRole('link', { name: 'Gristmill' }).click();
  await more(page, 'Body yaw', 'Duplicate');
  await page.getByRole('link', { name: 'Body yaw copy' }).click();
  await page
    .getByRole('navigation', { name: 'Views' })
    .getByRole('link', { name: /^Bench/ })
    .click();
  await expect(found).toHaveText(first);
  // The same name, the same number of rows, another content: another result, here and only here.
  await bringRows(11);
  await expect(found).not.toHaveText(first);
  const second = await found.innerText();
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Control+z');
  await expect(found).toHaveText(first);
  await page.keyboard.press('Control+Shift+z');
  await expect(found).toHaveText(second);
  await saved(page);
  await page.getByRole('link', { name: 'Gristmill' }).click();
  await page.getByRole('link', { name: 'Body yaw', exact: true }).click();
  await page
    .getByRole('navigation', { name: 'Views' })
    .getByRole('link', { name: /^Bench/ })
    .click();
  await expect(found).toHaveText(first);
  await page.getByRole('link', { name: 'Gristmill' }).click();
  expect((await table<string[]>(page, 'attachments', 'keys')).length).toBe(2);
  await more(page, 'Body yaw copy', 'Delete');
  await expect(page.getByRole('region', { name: 'Deleted' })).toContainText('can be brought back until');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Delete for good Body yaw copy' }).click();
  await expect(page.getByText('is deleted for good')).toBeVisible();
  expect((await table<string[]>(page, 'attachments', 'keys')).length).toBe(1);
  expect((await table<string[]>(page, 'history', 'keys')).filter((k) => !/^demo-/.test(k))).toEqual([]);
  await expect(page.getByRole('region', { name: 'Deleted' })).toHaveCount(0);
});

test('everything goes out as one file and into an empty browser, and out again byte for byte', async ({
  page,
  browser,
}) => {
  await openDemo(page);
  await type(page, 'Mass carried', '1.61 kg');
  await saved(page);
  await page.getByRole('heading', { name: /Arm against gravity/ }).click();
  await page.keyboard.press('t');
  await page.getByRole('link', { name: 'Gristmill' }).click();
  const out = async (p: Page) => {
    await p.getByRole('button', { name: 'Everything' }).click();
    const [file] = await Promise.all([
      p.waitForEvent('download'),
      p.getByRole('menuitem', { name: 'Export everything, earlier saves too' }).click(),
    ]);
    return file.path();
  };
  const first = await out(page);
  const context = await browser.newContext();
  const there = await context.newPage();
  await there.goto('/');
  await there.getByLabel('Joint file to import').setInputFiles(first);
  await expect(there.locator('[data-joint]')).toHaveCount(5);
  await expect(there.locator('html')).toHaveAttribute('data-sheet', 'dark');
  expect(readFileSync(await out(there)).equals(readFileSync(first))).toBe(true);
  await there.getByRole('link', { name: 'Body yaw', exact: true }).click();
  await expect(mass(there)).toHaveValue('1.61 kg');
  await there.locator('[data-save]').click();
  await expect(there.getByRole('dialog', { name: 'Earlier saves' }).getByRole('listitem')).toHaveCount(2);
  await context.close();
});

test('full storage asks before the page closes; storage that never answers is told after three seconds, and the joint exported', async ({
  page,
  context,
}) => {
  await openDemo(page);
  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
    };
  });
  await type(page, 'Mass carried', '1.4 kg');
  await expect(page.getByRole('alert')).toContainText('storage is full');
  await page.getByRole('link', { name: 'Gristmill' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('not stored');
  await page.getByRole('button', { name: 'Stay here' }).click();
  await expect(mass(page)).toHaveValue('1.4 kg');
  let asked = '';
  page.once('dialog', (d) => {
    asked = d.type();
    void d.dismiss();
  });
  await page.close({ runBeforeUnload: true });
  await expect.poll(() => asked).toBe('beforeunload');
  await page.close();

  const silent = await context.newPage();
  await silent.goto('/');
  await silent.getByRole('link', { name: 'Body yaw', exact: true }).click();
  await expect(mass(silent)).toBeEnabled();
  await silent.evaluate(() => {
    const transaction = IDBDatabase.prototype.transaction;
    // A transaction that begins and never gets anywhere.
    IDBDatabase.prototype.transaction = function (...args: Parameters<typeof transaction>) {
      const tx = transaction.apply(this, args);
      for (const name of [args[0]].flat() as string[]) {
        const spin = () => void (tx.objectStore(name).count().onsuccess = spin);
        spin();
      }
      return new Proxy(tx, {
        get: (t, key) =>
          key === 'objectStore'
            ? () => new Proxy({}, { get: () => () => new EventTarget() })
            : Reflect.get(t, key) instanceof Function
              ? (Reflect.get(t, key) as () => void).bind(t)
              : Reflect.get(t, key),
      });
    };
  });
  await type(silent, 'Mass carried', '1.9 kg');
  await expect(silent.getByRole('alert')).toContainText('does not answer', { timeout: 6000 });
  const [file] = await Promise.all([
    silent.waitForEvent('download'),
    silent.getByRole('button', { name: 'Export this joint' }).click(),
  ]);
  expect(JSON.parse(readFileSync(await file.path(), 'utf8')).brief.cases[0].load).toBeCloseTo(1.9, 12);
});

test('a server that has stopped is named as such, and the view comes when it is back', async ({ browser }) => {
  /** Starts a server of this test's own, at a port of its own, and waits until it says where it answers. */
  const start = async (wanted: number) => {
    const server = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
      env: { ...process.env, PORT: String(wanted) },
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    for await (const said of server.stdout!) {
      const port = /ready at http:\/\/127\.0\.0\.1:(\d+)/.exec(String(said))?.[1];
      if (port) return { server, port: Number(port) };
    }
    throw new Error('the server did not start');
  };
  let { server, port } = await start(4700 + Math.floor(Math.random() * 200));
  // Without what would keep the app for use without its server.
  const context = await browser.newContext({ baseURL: `http://127.0.0.1:${port}`, serviceWorkers: 'block' });
  const page = await context.newPage();
  try {
    await openDemo(page);
    // The view that is looked at has come; the next one has not.
    await expect(mass(page)).toBeVisible();
    await page.waitForLoadState('networkidle');
    const ended = once(server, 'exit');
    server.kill('SIGTERM');
    await ended;
    await type(page, 'Mass carried', '1.3 kg');
    await saved(page);
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Review/ })
      .click();
    await expect(page.getByText('The server that Gristmill came from has stopped').first()).toBeVisible();
    await expect(page.getByText('This view failed')).toHaveCount(0);
    ({ server, port } = await start(port));
    expect(`http://127.0.0.1:${port}/`).toBe(new URL('/', page.url()).href);
    await expect(page.getByRole('heading', { level: 1, name: 'Asked, expected, found' })).toBeVisible({
      timeout: 15_000,
    });
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Brief/ })
      .click();
    await expect(mass(page)).toHaveValue('1.3 kg');
  } finally {
    server.kill('SIGKILL');
    await context.close();
  }
});
