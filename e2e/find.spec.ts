import { expect, expectAccessible, openDemo, saved, test, type } from './fixture.ts';

type Page = import('@playwright/test').Page;
const found = (page: Page) => page.getByRole('table', { name: 'Found lines' });
const status = (page: Page) => page.getByRole('main').getByRole('status').first();

async function openFind(page: Page): Promise<void> {
  await openDemo(page, 'Line');
  await page.getByRole('navigation', { name: 'Sheets of the line' }).getByRole('link', { name: 'Find lines' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Which lines could do it');
}

/** Kinds that turn, but for belts, wheels and bought units. */
const ALL_BUT_FEW = [
  'chain',
  'cable',
  'bevel',
  'worm',
  'planetary',
  'shared-planet',
  'cycloidal',
  'ring plate',
  'roller wave',
  'strain wave',
];

/** From another view of the joint: looks for lines of belts, wheels and bought units alone. */
async function findOfFew(page: Page, stages: string): Promise<void> {
  await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
  await page.getByRole('navigation', { name: 'Sheets of the line' }).getByRole('link', { name: 'Find lines' }).click();
  await page.getByText('all kinds allowed').click();
  for (const kind of ALL_BUT_FEW) await page.getByRole('checkbox', { name: kind, exact: true }).uncheck();
  await page.getByRole('combobox', { name: 'Stages, at most' }).selectOption(stages);
  await page.getByRole('button', { name: /^Find (lines|again)$/ }).click();
}

test.describe('finding lines', () => {
  // A search takes both cores, and so do the flows beside it.
  test.setTimeout(120_000);
  test('nothing allowed is refused in words; what is found is laid out, compared, and taken as a variant', async ({
    page,
  }) => {
    await openFind(page);
    // The demo opens with what was found for it; its bounds are drawn, and narrow it.
    await expect(status(page)).toContainText(/\d+ lines out of \d/);
    const shown = found(page).locator('tbody tr');
    const before = await shown.count();
    expect(before).toBeGreaterThan(20);
    await expect(page.getByRole('region', { name: 'Your variants beside them' })).toContainText('A misses play');
    await expect(page.locator('[data-own="B"]')).toHaveCount(1);
    await type(page, 'money, at most', '$70');
    await page.getByRole('checkbox', { name: /only lines within/ }).check();
    await expect.poll(() => shown.count()).toBeLessThan(before);
    for (const text of await found(page).locator('tbody td:nth-child(2)').allInnerTexts())
      expect(Number.parseFloat(text)).toBeLessThanOrEqual(70);
    await page.getByRole('button', { name: 'As the brief asks' }).click();
    await expect(page.getByRole('textbox', { name: 'money, at most' })).toHaveValue('100 $');
    await page.getByRole('checkbox', { name: /only lines within/ }).uncheck();
    await page.getByRole('combobox', { name: 'process' }).selectOption('something milled');
    await expect.poll(() => shown.count()).toBeLessThan(before);
    await page.getByRole('combobox', { name: 'process' }).selectOption('any');
    await expect(shown).toHaveCount(before);
    await page.getByText('all kinds allowed').click();
    const kinds = page.getByRole('group', { name: 'Kinds allowed' }).getByRole('checkbox');
    for (let i = 0; i < (await kinds.count()); i++) await kinds.nth(i).uncheck();
    await page.getByRole('button', { name: 'Find again' }).click();
    await expect(page.getByRole('alert')).toContainText('No kind of stage is allowed.');
    for (const kind of ['belt']) await page.getByRole('checkbox', { name: kind }).check();
    await page.getByRole('combobox', { name: 'Stages, at most' }).selectOption('2');
    await page.getByRole('button', { name: 'Find lines' }).click();
    await expect(page.getByRole('alert')).toHaveCount(0);
    // Another view meanwhile; it goes on.
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Brief/ })
      .click();
    await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
    await page
      .getByRole('navigation', { name: 'Sheets of the line' })
      .getByRole('link', { name: 'Find lines' })
      .click();
    await expect(status(page)).toContainText(/\d+ lines out of/, { timeout: 60_000 });
    await expect(found(page)).toBeVisible();
    const rows = found(page).locator('tbody tr');
    expect(await rows.count()).toBeGreaterThan(3);
    // Money alone first: the cheapest leads, and says so.
    for (const name of ['chance', 'play', 'mass']) await page.getByRole('slider', { name, exact: true }).fill('0');
    const money = (await rows.locator('td:nth-child(2)').allInnerTexts()).map(Number.parseFloat);
    expect(money).toEqual([...money].sort((a, b) => a - b));
    await rows.first().getByRole('button').click();
    await expect(page.getByRole('region', { name: 'The chosen line' })).toContainText('The cheapest');
    await rows.nth(0).getByRole('checkbox').check();
    await rows.nth(2).getByRole('checkbox').check();
    await expect(page.getByRole('region', { name: 'Two lines side by side' })).toContainText('chance of every must');
    await expectAccessible(page);
    // The ratio desk says what this set says.
    const says = await page.getByRole('region', { name: 'What they say' }).innerText();
    await page
      .getByRole('navigation', { name: 'Sheets of the line' })
      .getByRole('link', { name: 'Ratio desk' })
      .click();
    await expect(page.getByRole('region', { name: 'What they say' })).toContainText(says.split('\n').at(-1)!);
    await page
      .getByRole('navigation', { name: 'Sheets of the line' })
      .getByRole('link', { name: 'Find lines' })
      .click();
    // What matters was not forgotten meanwhile.
    await expect(page.getByRole('slider', { name: 'chance', exact: true })).toHaveValue('0');
    // Motors narrow the set, and so does what is made and bought.
    const all = await rows.count();
    const driven = page.getByRole('combobox', { name: 'driven by' });
    const types = await driven.locator('option').allInnerTexts();
    let sum = 0;
    for (const type of types.slice(1)) {
      await driven.selectOption(type);
      sum += await rows.count();
    }
    expect(sum).toBe(all);
    await driven.selectOption('any motor');
    await page.getByRole('combobox', { name: 'gearing' }).selectOption('bought');
    await expect(page.getByText('None of the lines found is of these')).toBeVisible();
    await page.getByRole('combobox', { name: 'gearing' }).selectOption('made or bought');
    await rows.nth(0).getByRole('checkbox').check();
    const name = (await rows.first().getByRole('button').locator('span').first().innerText()).split(', ');
    await page.getByRole('button', { name: 'Take as variant' }).click();
    await expect(page.getByRole('combobox', { name: 'Variant' })).toHaveValue(/.+/);
    for (const [i, kind] of name.entries())
      await expect(page.getByRole('link', { name: new RegExp(`^${i + 1} ${kind}`, 'i') }).first()).toBeVisible();
    // It stands in this variant's housing; without that it is what the list told.
    await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Make/ }).click();
    await page.getByRole('link', { name: 'Section', exact: true }).click();
    await page.getByRole('button', { name: 'Remove housing' }).click();
    await expect(page.locator('[data-limit="money"] [data-figure]')).toContainText(String(Math.round(money[0]!)));
    await saved(page);
  });

  test('a search can be stopped, and its nearest misses can be looked at', async ({ page }) => {
    await openFind(page);
    await page.getByRole('button', { name: 'Find again' }).click();
    await expect(status(page)).toContainText('Screening stages', { timeout: 30_000 });
    await page.getByRole('button', { name: 'Stop' }).click();
    await expect(status(page)).toContainText('Stopped');
    // A mass that none can have: every kind says by how much it misses.
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Brief/ })
      .click();
    await type(page, 'Mass limit', '20 g');
    await findOfFew(page, '1');
    const why = page.getByRole('region', { name: 'Why not' });
    await expect(why).toContainText(/Belt.*has mass .*; at most 0.02 kg is asked/, { timeout: 60_000 });
    await expect(page.getByRole('alert')).toContainText('No line that was put together meets every must');
    await why.getByRole('button', { name: 'Look at it as a variant' }).first().click();
    await expect(page.locator('aside [data-limit="mass"]')).toContainText('over');
  });

  test('a hollow bore that is asked for is left by every line, and stays as wide in what is taken', async ({
    page,
  }) => {
    await openDemo(page);
    await page.getByRole('combobox', { name: 'Add limit' }).selectOption({ label: 'Hollow bore' });
    await type(page, 'Hollow bore limit', '20 mm');
    await page.getByRole('combobox', { name: 'Hollow bore: must or wish' }).selectOption('must');
    const bore = page.locator('aside [data-limit="bore"]');
    await expect(bore).toHaveAttribute('data-state', 'fails');
    await findOfFew(page, '2');
    await expect(status(page)).toContainText(/\d+ lines out of/, { timeout: 60_000 });
    await page.getByRole('button', { name: 'Take as variant' }).click();
    await expect(bore).toHaveAttribute('data-state', 'holds');
    await expect(bore.locator('[data-figure]')).toContainText('20 mm');
  });

  test('what lies in the drawer costs nothing more, stages are of what is allowed, and a search outlives a reload', async ({
    page,
  }) => {
    await openFind(page);
    await page.getByText(/nothing in the drawer; of usual materials/).click();
    const drawer = page.getByRole('region', { name: 'In the drawer' });
    await drawer.getByRole('combobox', { name: 'Put in a motor' }).selectOption('Stepper, 42 mm frame, 48 long');
    await type(page, 'Stepper, 42 mm frame, 48 long, how many', '-1');
    await expect(page.getByRole('alert')).toContainText('too little');
    await type(page, 'Stepper, 42 mm frame, 48 long, how many', '2');
    await drawer.getByRole('combobox', { name: 'wide' }).selectOption('6 mm');
    await drawer.getByRole('button', { name: 'Put in', exact: true }).click();
    await page.getByRole('combobox', { name: 'A search makes stages of' }).selectOption('the materials marked');
    for (const made of ['printed', 'milled']) {
      const marked = page.getByRole('group', { name: made }).getByRole('checkbox', { checked: true });
      // From the last: those before it stay where they are in the list.
      for (const box of (await marked.all()).reverse()) await box.uncheck();
    }
    await expect(status(page)).toContainText('has changed since: find again');
    await page.getByText('all kinds allowed').click();
    for (const kind of ['bought unit', ...ALL_BUT_FEW])
      await page.getByRole('checkbox', { name: kind, exact: true }).uncheck();
    await page.getByRole('combobox', { name: 'Stages, at most' }).selectOption('2');
    await page.getByRole('button', { name: 'Find again' }).click();
    await expect(page.getByRole('alert')).toContainText('No material is allowed that stages could be made of.');
    await page.getByRole('checkbox', { name: 'PETG, printed' }).check();
    await page.getByText(/2 motors, 1 closed belt in the drawer; made of 1 material$/).click();
    await page.getByRole('button', { name: 'Find lines' }).click();
    await expect(status(page)).toContainText(/\d+ lines out of/, { timeout: 90_000 });
    await page.getByRole('combobox', { name: 'driven by' }).selectOption('stepper');
    const owned = found(page).getByRole('row').filter({ hasText: 'Stepper, 42 mm frame, 48 long' }).first();
    await owned.getByRole('button').click();
    await expect(page.getByRole('region', { name: 'The chosen line' })).toContainText(
      /In the drawer: 1 × Stepper, 42 mm frame, 48 long.* The price is without \d+ \$ for that\./,
    );
    await page.reload();
    await expect(status(page)).toContainText(/\d+ lines out of/);
    await page.getByText(/2 motors, 1 closed belt in the drawer/).click();
    await page.getByRole('button', { name: /^Take out Rounded/ }).click();
    await expect(page.getByText(/2 motors in the drawer; made of 1 material/)).toBeVisible();
    await expectAccessible(page);
  });

  test('a worker that dies ends the search in words; what was found stays, and it can be found again', async ({
    page,
  }) => {
    await page.addInitScript(() => {
      const Real = window.Worker;
      const made: Worker[] = [];
      (window as unknown as { killWorkers: () => void }).killWorkers = () =>
        made.forEach((w) => w.dispatchEvent(new ErrorEvent('error', { message: 'out of memory' })));
      window.Worker = class extends Real {
        constructor(...args: ConstructorParameters<typeof Worker>) {
          super(...args);
          made.push(this);
        }
      };
    });
    await openFind(page);
    const before = await status(page).innerText();
    await page.getByRole('button', { name: 'Find again' }).click();
    await expect(status(page)).toContainText('Screening stages', { timeout: 30_000 });
    await page.evaluate(() => (window as unknown as { killWorkers: () => void }).killWorkers());
    await expect(page.getByRole('alert')).toContainText(/The search ended before it was done.*Find again/);
    await expect(found(page)).toBeVisible();
    await page.getByRole('button', { name: 'Find again' }).click();
    await expect(status(page)).toContainText('Screening stages', { timeout: 30_000 });
    await page.getByRole('button', { name: 'Stop' }).click();
    await expect(status(page)).toContainText('Stopped');
    expect(before).toMatch(/lines out of/);
  });
});
