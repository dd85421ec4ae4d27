import { chromium, type Page } from '@playwright/test';
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { browserUse } from './browser.ts';
import { blankJoint, expect, expectAccessible, openDemo, openDemoSet, saved, test, type } from './fixture.ts';

/** A file dropped on the window, as a person drags it in. */
const drop = (page: Page, name: string, content: string) =>
  page.evaluate(
    async ([n, c]) => {
      const data = new DataTransfer();
      data.items.add(new File([c!], n!));
      for (const kind of ['dragenter', 'dragover', 'drop']) {
        window.dispatchEvent(new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true }));
        // A hand is no quicker.
        await new Promise((later) => setTimeout(later, 300));
      }
    },
    [name, content],
  );

test('the first page shows what it is, the way through it, and joints with what they teach', async ({ page }) => {
  await page.goto('/');
  const first = page.getByRole('region', { name: 'What this is' });
  await expect(first.getByRole('heading', { level: 2 }).first()).toContainText('Say what a joint must do');
  await expect(page).toHaveTitle('Gristmill');
  const steps = page.getByRole('list', { name: 'The way through it' }).getByRole('listitem');
  await expect(steps).toHaveCount(8);
  await expect(steps.first()).toContainText('Ask');
  await expect(steps.last()).toContainText('Review');
  // The verdicts are worked out here and now, and the reducer turns by the code that draws it everywhere.
  const cards = page.getByRole('list', { name: 'Joints of the demo set' }).getByRole('listitem');
  await expect(cards).toHaveCount(5);
  await expect(page.locator('[data-demo="Body yaw"]')).toContainText('1 must missed');
  await expect(page.locator('[data-demo="Tide dial"]')).toContainText('Holds its place without power');
  const turned = () =>
    first.locator('svg path[transform]').evaluateAll((all) => all.map((p) => p.getAttribute('transform')).join());
  const before = await turned();
  await expect.poll(turned).not.toBe(before);
  await expectAccessible(page);
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.reload();
  await expect(cards).toHaveCount(5);
  const at = await turned();
  await page.waitForTimeout(300);
  expect(await turned()).toBe(at);
});

test('a tour of seven stops, each of which notices what was done; left and taken up again', async ({ page }) => {
  test.setTimeout(120_000);
  await page.goto('/');
  await page.getByRole('button', { name: 'Seven stops through the demo' }).click();
  const tour = page.getByRole('region', { name: 'Tour' });
  await expect(tour).toContainText('stop 1 of 7');
  await type(page, 'Mass carried', '2 lb');
  await expect(tour.getByRole('status')).toContainText('every bracket of the tally');
  await tour.getByRole('button', { name: 'Next stop' }).click();
  await expect(page).toHaveURL(/\/line$/);
  await page
    .getByRole('button', { name: /open working$/ })
    .first()
    .click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(tour.getByRole('status')).toContainText('Each figure of Gristmill opens so');
  await tour.getByRole('button', { name: 'Next stop' }).click();
  await expect(tour).toContainText('stop 3 of 7');
  await expect(page.locator('[data-drawing]')).toBeVisible();
  await page.keyboard.press('.');
  await page.keyboard.press('.');
  await expect(tour.getByRole('status')).toContainText('true speed');
  await expectAccessible(page);
  // Left here, it waits; it is taken up where it was, in the same joint.
  await tour.getByRole('button', { name: 'Leave the tour' }).click();
  await expect(tour).toHaveCount(0);
  await page.goto('/help');
  await page.getByRole('button', { name: 'Go through the demo in seven stops' }).click();
  await expect(tour).toContainText('stop 3 of 7');
  await expect(page).toHaveURL(/tour-body-yaw\/stage\/1$/);
  await tour.getByRole('button', { name: 'Skip this stop' }).click();
  const lines = page.getByRole('button', { name: 'Take as variant' });
  await lines.first().click();
  await expect(tour.getByRole('status')).toContainText('beside the other variants');
  await tour.getByRole('button', { name: 'Next stop' }).click();
  await expect(page).toHaveURL(/make\/section$/);
  for (let i = 0; i < 2; i++) await tour.getByRole('button', { name: /Skip this stop|Next stop/ }).click();
  await expect(page).toHaveURL(/review$/);
  await page.keyboard.press('Control+z');
  await expect(tour.getByRole('status')).toContainText('That was the way round');
  await tour.getByRole('button', { name: 'End the tour' }).click();
  await expect(tour).toHaveCount(0);
  // The demo itself was not touched: the tour has a joint of its own.
  await page.goto('/');
  await expect(page.locator('[data-joint]')).toHaveCount(1);
  await expect(page.locator('[data-joint]')).toContainText('Body yaw, for the tour');
});

test('words, method, keys and notices are read in the app; every page has its title, address and way back', async ({
  page,
}) => {
  await openDemo(page, 'line');
  await expect(page).toHaveTitle('Line · Body yaw · Gristmill');
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await expect(keys).toContainText('Earlier saves of this joint');
  // A key is changed, refused where it is taken, and does what it says.
  const change = keys.getByRole('button', { name: 'Change the key of Earlier saves of this joint' });
  await change.click();
  await page.keyboard.press('w');
  await expect(keys.getByRole('alert')).toContainText('belongs to “Open the working of a figure”');
  await page.keyboard.press('j');
  await expectAccessible(page);
  await keys.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('j');
  await expect(page.getByRole('dialog', { name: 'Earlier saves' })).toBeVisible();
  await page.keyboard.press('Escape');
  // Turned off, single keys do nothing; those with Ctrl stay.
  await page.keyboard.press('?');
  await keys.getByRole('checkbox', { name: /Keys alone do something/ }).uncheck();
  await keys.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('j');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Control+k');
  const all = page.getByRole('combobox', { name: 'Type what you want to do' });
  await all.fill('backlash');
  await page.getByRole('option', { name: /play: backlash/ }).click();
  await expect(page).toHaveURL(/\/words\?word=play/);
  await page.goBack();
  await expect(page).toHaveURL(/\/line$/);
  // The address is there before the page is, and its keys come with it.
  await expect(page.getByRole('navigation', { name: 'Views' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Stages' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await all.fill('worked out');
  await page.getByRole('option', { name: 'How things are worked out' }).click();
  await expect(page).toHaveTitle('Method · Gristmill');
  await page.getByRole('link', { name: 'The bench', exact: true }).click();
  await expect(page).toHaveURL(/#the-bench$/);
  await expect(page.getByRole('heading', { name: 'The bench', exact: true })).toBeInViewport();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'About' }).click();
  await expect(page.getByRole('main')).toContainText(/\d+(\.\d+)? MB of \d+ MB/);
  await expect(page.getByRole('main')).toContainText(/The browser (may clear it|has promised to keep it)/);
  await page.getByRole('button', { name: 'Read the notices of third parties' }).click();
  await expect(page.getByLabel('Notices of third parties')).toContainText(
    /LGPL-2\.1-only[^]*can be|put a changed kernel/,
  );
  await expectAccessible(page);
  for (const [address, title] of [
    ['/help', 'Help'],
    ['/help/keys', 'Keys'],
    ['/words', 'Words'],
  ] as const) {
    await page.goto(address);
    await expect(page).toHaveTitle(`${title} · Gristmill`);
    await expectAccessible(page);
  }
});

test('any table is copied, for a spreadsheet or as Markdown; a field says what it is for without a mouse', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await openDemo(page, 'review');
  const clip = () => page.evaluate(() => navigator.clipboard.readText());
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Type what you want to do' }).fill('copy markdown');
  await page
    .getByRole('option', { name: /^Copy “.*” as Markdown$/ })
    .first()
    .click();
  await expect(page.getByText(/^Copied \d+ rows? of “.*” as Markdown\.$/)).toBeVisible();
  expect(await clip()).toMatch(/^\|.*\|\n\| --- \|.*\n\| /);
  // The same with the pointer: a table that it rests in offers it.
  const table = page.locator('main table').first();
  const copy = page.getByRole('button', { name: /^Copy / });
  await expect(async () => {
    await table.hover();
    await table.hover({ position: { x: 20, y: 12 } });
    await expect(copy).toBeVisible({ timeout: 1500 });
  }).toPass();
  await copy.click();
  await page.getByRole('menuitem', { name: 'For a spreadsheet' }).click();
  await expect.poll(clip).toMatch(/\t/);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Type what you want to do' }).fill('Neck');
  await expect(page.getByRole('option', { name: 'Open Neck lift' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: /^Stage/ }).click();
  const field = page.getByRole('textbox', { name: 'Width' });
  await field.focus();
  const help = await field.getAttribute('aria-description');
  expect(help).toBeTruthy();
  await expect(page.locator('[data-help-line]')).toHaveText(help!);
  await field.blur();
  await expect(page.locator('[data-help-line]')).toHaveCount(0);
});

test('files dropped anywhere are taken for what they are: a joint, a shop, readings', async ({ page }) => {
  await openDemo(page, 'bench');
  await page
    .getByRole('button', { name: /Play, with a lever|Play/ })
    .first()
    .click();
  const rows = page.getByRole('main').getByRole('row');
  const before = await rows.count();
  await drop(page, 'notes.bin', 'nothing of the kind');
  await expect(page.getByText(/is not|cannot be read|not a joint/i).first()).toBeVisible();
  await drop(page, 'loose.csv', 'reading\n0.41\n');
  await expect.poll(() => rows.count()).not.toBe(before - 1);
  await page.goto('/');
  await drop(page, 'loose.csv', 'reading\n0.41\n');
  await expect(page.locator('[data-sonner-toast]', { hasText: 'No test is open that could take them' })).toBeVisible();
  await drop(page, 'again.gristmill.json', readFileSync('demo/tide-dial.json', 'utf8'));
  await expect(page.getByRole('link', { name: 'Tide dial (imported)' })).toBeVisible();
  await drop(
    page,
    'shop.json',
    JSON.stringify({ format: 'gristmill-shop', version: 1, factors: { gravity: { value: 9.81 } } }),
  );
  await expect(page.locator('[data-sonner-toast]', { hasText: /Brought in|“shop.json”/ })).toBeVisible();
});

test('joints on the shelf are found, ordered, exported and deleted together; a blank one must be named', async ({
  page,
}) => {
  await openDemoSet(page);
  const joints = page.locator('[data-joint]');
  await expect(joints).toHaveCount(5);
  // The demo can be had again: nothing reminds of exporting it.
  await expect(page.getByText(/nothing has been exported/)).toHaveCount(0);
  await page.getByRole('combobox', { name: 'by' }).selectOption('name');
  await expect(joints.first()).toHaveAttribute('data-joint', 'Body yaw');
  await page.getByRole('searchbox', { name: 'find' }).fill('WORM');
  await expect(joints).toHaveCount(1);
  await expect(joints.first()).toHaveAttribute('data-joint', 'Tide dial');
  await page.getByRole('searchbox', { name: 'find' }).fill('nothing like it');
  await expect(page.getByText('No joint has that in its name')).toBeVisible();
  await page.getByRole('searchbox', { name: 'find' }).fill('');
  for (const name of ['Neck lift', 'Wing root']) await page.getByRole('checkbox', { name: `Choose ${name}` }).check();
  await expectAccessible(page);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export 2' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('2-joints.gristmill.zip');
  await page.getByRole('button', { name: 'Delete 2' }).click();
  await expect(joints).toHaveCount(3);
  await page.locator('[data-sonner-toast]', { hasText: 'Deleted 2 joints' }).getByRole('button').click();
  await expect(joints).toHaveCount(5);
  await page.getByRole('checkbox', { name: 'choose all' }).check();
  await page.getByRole('button', { name: 'Delete 5' }).click();
  await expect(joints).toHaveCount(0);
  // What was exported holds those two, and no more.
  await page.getByLabel('Joint file to import').setInputFiles(await file.path());
  await expect(joints).toHaveCount(2);
  await page.getByRole('button', { name: 'Blank joint' }).click();
  const form = page.getByRole('form', { name: 'Blank joint' });
  await form.getByRole('button', { name: 'Make it' }).click();
  await expect(form.getByRole('alert')).toContainText('The joint has no name');
  await page.keyboard.press('Escape');
  await blankJoint(page, 'Heron’s <i>knee</i>');
  await expect(page).toHaveTitle('Brief · Heron’s <i>knee</i> · Gristmill');
  await saved(page);
});

test('it can be installed, works without its server, exports everything and takes it into an empty profile', async () => {
  test.setTimeout(180_000);
  // A server of its own, which is ended in the middle; the others block what keeps files.
  const port = 4417;
  const address = `http://127.0.0.1:${port}/`;
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
    env: { ...process.env, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const folder = mkdtempSync(join(tmpdir(), 'gristmill-offline-'));
  const context = await chromium.launchPersistentContext(folder, {
    ...browserUse.launchOptions,
    viewport: browserUse.viewport,
    acceptDownloads: true,
    serviceWorkers: 'allow',
  });
  const said: string[] = [];
  try {
    await new Promise<void>((ready, never) => {
      server.once('exit', () => never(new Error(`No server at ${address}: is there one already?`)));
      server.stdout.on('data', (x) => String(x).includes('ready at') && ready());
    });
    const page = await context.newPage();
    page.on('pageerror', (e) => said.push(e.message));
    await page.goto(address);
    const manifest = (await (
      await page.request.get(
        `${address}${await page.locator('link[rel=manifest]').getAttribute('href')}`.replace('//man', '/man'),
      )
    ).json()) as { name: string; display: string; icons: { src: string; sizes: string }[] };
    expect(manifest).toMatchObject({ name: 'Gristmill', display: 'standalone' });
    for (const icon of manifest.icons)
      expect((await page.request.get(`${address.slice(0, -1)}${icon.src}`)).ok()).toBe(true);
    expect(manifest.icons.map((i) => i.sizes)).toEqual(expect.arrayContaining(['192x192', '512x512']));
    await page.evaluate(async () => {
      const registration = await navigator.serviceWorker.ready;
      while (registration.active?.state !== 'activated') await new Promise((r) => setTimeout(r, 100));
    });
    // A page opened from what is kept.
    await page.reload();
    await page.getByRole('button', { name: 'Open the demo set' }).click();
    await expect(page.getByRole('link', { name: 'Wing root' })).toBeVisible();
    const ended = new Promise((done) => server.once('exit', done));
    server.kill('SIGTERM');
    await ended;
    // From nothing but what the browser keeps: a view never looked at, a page by its address, bodies and exact files.
    await page.goto(`${address}joint/demo-wing-root/review`);
    await expect(page.locator('[data-limit="play"] [data-figure]')).toBeVisible();
    await page.goto(`${address}joint/demo-neck-lift/make`);
    const step = page.waitForEvent('download', { timeout: 90_000 });
    await page
      .getByRole('button', { name: / as STEP$/ })
      .last()
      .click();
    expect((await step).suggestedFilename()).toMatch(/\.step$/);
    await page.goto(`${address}help/about`);
    await expect(page.getByRole('main')).toContainText('works without its server', { timeout: 15_000 });
    await page.goto(address);
    await page.getByRole('button', { name: 'Everything' }).click();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: 'Export everything, earlier saves too' }).click(),
    ]);
    const everything = await file.path();
    // Another profile: empty, and filled by that one file.
    await page.evaluate(async () => {
      for (const { name } of await indexedDB.databases()) indexedDB.deleteDatabase(name!);
      localStorage.clear();
    });
    await page.goto(address);
    await expect(page.getByRole('region', { name: 'What this is' })).toBeVisible();
    await page.getByLabel('Joint file to import').setInputFiles(everything);
    await expect(page.locator('[data-joint]')).toHaveCount(5);
    expect(said).toEqual([]);
  } finally {
    await context.close();
    server.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
});

test('the variant stands in the address, and Back closes what was opened before it leaves a page', async ({ page }) => {
  await openDemo(page, 'line', 'Wing root');
  const variant = page.getByRole('combobox', { name: 'Variant' });
  await expect(variant).toHaveValue(/./);
  await variant.selectOption('C');
  await expect(page).toHaveURL(/line\?variant=C$/);
  await variant.selectOption('A');
  await expect(page).toHaveURL(/line\?variant=A$/);
  // A hand is no quicker.
  await page.waitForTimeout(300);
  await page.goBack();
  await expect(variant.locator('option:checked')).toHaveText('C');
  // The working of a figure is a step of its own.
  await page
    .getByRole('button', { name: /open working$/ })
    .first()
    .click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page).toHaveURL(/line\?variant=C$/);
  // Closed by its own key it leaves nothing behind: Back goes on as if it had not been.
  await page.keyboard.press('w');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await saved(page);
  await page.reload();
  await expect(variant.locator('option:checked')).toHaveText('C');
  // Another hand than the list: undo takes the switch back, and the address goes along.
  await variant.selectOption('B');
  await expect(page).toHaveURL(/line\?variant=B$/);
  await page.keyboard.press('Control+z');
  await expect(variant.locator('option:checked')).toHaveText('C');
  await expect(page).toHaveURL(/line\?variant=C$/);
  await saved(page);
  await page.goto(page.url().replace('variant=C', 'variant=nothing'));
  await expect(variant.locator('option:checked')).toHaveText('C');
});

test('a joint is saved to a file of its own, again to the same one, and opened from the recent ones', async ({
  page,
}) => {
  // The browser's own window of files cannot be driven; files of its private folder are chosen in its place.
  await page.addInitScript(() => {
    const asked: string[] = [];
    const pick = async (name: string) => {
      asked.push(name);
      return (await navigator.storage.getDirectory()).getFileHandle(name, { create: true });
    };
    Object.assign(window, {
      asked,
      showSaveFilePicker: (of: { suggestedName?: string }) => pick(of.suggestedName ?? 'joint.json'),
      showOpenFilePicker: async () => [await pick('body-yaw.json')],
    });
  });
  await openDemo(page, 'Brief');
  const asked = () => page.evaluate(() => (window as unknown as { asked: string[] }).asked);
  const onDisk = (name: string) =>
    page.evaluate(
      // A file that is written just then cannot be read: it is asked again.
      async (n) =>
        (await (await (await navigator.storage.getDirectory()).getFileHandle(n)).getFile()).text().catch(() => ''),
      name,
    );
  await page.keyboard.press('Control+Shift+s');
  await expect(page.getByText(/^Saved to “/)).toBeVisible();
  const [name] = await asked();
  expect(JSON.parse(await onDisk(name!))).toMatchObject({ format: 'gristmill-joint', name: 'Body yaw' });
  await type(page, 'Mass carried', '1.3 kg');
  await saved(page);
  await page.keyboard.press('Control+Shift+s');
  await expect.poll(async () => (await onDisk(name!)).includes('1.3')).toBe(true);
  // It asked once: the second time it wrote into the same file.
  expect(await asked()).toEqual([name]);
  await page.getByRole('link', { name: 'Gristmill' }).click();
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await page.getByRole('menuitem', { name: name! }).click();
  await page.getByRole('link', { name: 'Body yaw (imported)' }).click();
  await expect(page.getByRole('textbox', { name: 'Mass carried' })).toHaveValue('1.3 kg');
});

test('a pane is as wide as it was dragged or moved by keys, there again after a reload', async ({ page }) => {
  await openDemo(page, 'Stage');
  const bar = page.getByRole('separator', { name: 'Width of the parameters' });
  const pane = page.getByRole('region', { name: 'Parameters' });
  const wide = async () => Math.round((await pane.boundingBox())!.width);
  const before = await wide();
  const at = (await bar.boundingBox())!;
  await page.mouse.move(at.x, at.y + 200);
  await page.mouse.down();
  await page.mouse.move(at.x - 60, at.y + 200, { steps: 4 });
  await page.mouse.up();
  await expect.poll(wide).toBeGreaterThan(before + 50);
  const dragged = await wide();
  await bar.focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(wide).toBeGreaterThan(dragged);
  const moved = await wide();
  await expectAccessible(page);
  await page.reload();
  await expect.poll(wide).toBe(moved);
});

test('a phone at the bench: one column, the views along the bottom, the tally when it is asked for', async ({
  page,
}) => {
  await page.setViewportSize({ width: 380, height: 780 });
  await openDemo(page, 'bench', 'Wing root').catch(() => undefined);
  const width = () => page.evaluate(() => document.documentElement.scrollWidth);
  const fits = async () => expect(await width()).toBeLessThanOrEqual(380);
  await expect(page.getByRole('region', { name: 'Result' })).toBeVisible();
  await fits();
  await expectAccessible(page);
  const view = page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Bench/ });
  const box = (await view.boundingBox())!;
  expect(box.y + box.height).toBeGreaterThan(740);
  expect(box.height).toBeGreaterThanOrEqual(44);
  await expect(page.getByRole('complementary', { name: 'Tally' }).getByRole('listitem')).toHaveCount(0);
  await page.getByRole('button', { name: 'Tally' }).click();
  await expect(page.locator('[data-limit="play"]')).toBeVisible();
  await fits();
  await page.getByRole('button', { name: 'Fold' }).click();
  await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Make/ }).click();
  await page.getByRole('link', { name: 'Going together' }).click();
  await page.getByRole('checkbox').first().check({ timeout: 30_000 });
  await fits();
  await expectAccessible(page);
  await page.goto('/');
  await expect(page.locator('[data-joint]')).toHaveCount(5);
  await fits();
});

test('tables are sorted by their heads, searched, and take a block from a spreadsheet whole or not at all', async ({
  page,
}) => {
  await page.goto('/shop?shelf=materials');
  const table = page.getByRole('table', { name: 'Materials' });
  const names = () => table.locator('tbody tr').evaluateAll((rows) => rows.map((r) => r.getAttribute('data-thing')));
  await expect(table.locator('tbody tr').first()).toBeVisible();
  const shipped = await names();
  const density = table.getByRole('columnheader', { name: 'density' });
  await density.getByRole('button').click();
  await expect(density).toHaveAttribute('aria-sort', /ascending|descending/);
  const values = () =>
    table
      .getByRole('textbox', { name: /, density$/ })
      .evaluateAll((all) => all.map((i) => parseFloat((i as HTMLInputElement).value)));
  const one = await values();
  expect(one).toEqual([...one].sort((a, b) => b - a));
  await density.getByRole('button').click();
  await expect.poll(values).toEqual([...one].reverse());
  await density.getByRole('button').click();
  await expect(density).not.toHaveAttribute('aria-sort');
  await expect.poll(names).toEqual(shipped);
  const find = page.getByRole('searchbox', { name: 'find' }).first();
  await find.fill('steel');
  await expect.poll(async () => (await names()).length).toBeLessThan(shipped.length);
  await find.fill('nothing of that name');
  await expect(table).toContainText('Nothing here has that in its name');
  await find.fill('');
  const cell = (row: number) => table.getByRole('textbox', { name: /, strength$/ }).nth(row);
  // From cell to cell by keys: Enter takes what was typed and goes down; what is refused is not left.
  const density0 = (row: number) => table.getByRole('textbox', { name: /, density$/ }).nth(row);
  await cell(0).focus();
  await page.keyboard.press('Enter');
  await expect(cell(1)).toBeFocused();
  await page.keyboard.press('Shift+Enter');
  await expect(cell(0)).toBeFocused();
  await cell(1).fill('5 bananas');
  await page.keyboard.press('Enter');
  await expect(cell(1)).toBeFocused();
  await page.keyboard.press('Escape');
  await density0(1).focus();
  await page.keyboard.press('Control+ArrowDown');
  await expect(density0(2)).toBeFocused();
  const paste = (text: string) =>
    cell(0).evaluate((field, t) => {
      const data = new DataTransfer();
      data.setData('text', t);
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    }, text);
  const before = await cell(1).inputValue();
  await paste('41 MPa\t31 MPa\n42 kg\t30 MPa');
  await expect(page.getByRole('alert')).toContainText(/strength: kg is a unit of mass/);
  await expect(cell(1)).toHaveValue(before);
  await paste('41 MPa\t31 MPa\n42 MPa\t30 MPa');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(cell(0)).toHaveValue('41 MPa');
  await expect(cell(1)).toHaveValue('42 MPa');
  await expectAccessible(page);
  await openDemo(page, 'line/find');
  const found = page.getByRole('table', { name: 'Found lines' });
  const money = found.getByRole('columnheader', { name: 'money' });
  await money.getByRole('button').click();
  await expect(money).toHaveAttribute('aria-sort', 'ascending');
  const prices = (await found.locator('tbody tr td:nth-child(2)').allInnerTexts()).map((t) => parseFloat(t));
  expect(prices).toEqual([...prices].sort((a, b) => a - b));
});
