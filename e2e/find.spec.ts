import { expect, expectAccessible, openDemo, saved, test, type } from './fixture.ts';

type Page = import('@playwright/test').Page;
const found = (page: Page) => page.getByRole('table', { name: 'Found lines' });
const status = (page: Page) => page.getByRole('main').getByRole('status').first();

async function openFind(page: Page): Promise<void> {
  await openDemo(page, 'Line');
  await page.getByRole('navigation', { name: 'Sheets of the line' }).getByRole('link', { name: 'Find lines' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Which lines could do it');
}

test.describe('finding lines', () => {
  // A search takes both cores, and so do the flows beside it.
  test.setTimeout(120_000);
  test('nothing allowed is refused in words; what is found is laid out, compared, and taken as a variant', async ({
    page,
  }) => {
    await openFind(page);
    await page.getByText('all kinds allowed').click();
    const kinds = page.getByRole('group', { name: 'Kinds allowed' }).getByRole('checkbox');
    for (let i = 0; i < (await kinds.count()); i++) await kinds.nth(i).uncheck();
    await page.getByRole('button', { name: 'Find lines' }).click();
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
    for (const name of ['chance', 'play', 'mass']) await page.getByRole('slider', { name, exact: true }).fill('0');
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
    await expect(page.locator('[data-limit="money"] [data-figure]')).toContainText(String(Math.round(money[0]!)));
    await saved(page);
  });

  test('a search can be stopped, and its nearest misses can be looked at', async ({ page }) => {
    await openFind(page);
    await page.getByRole('button', { name: 'Find lines' }).click();
    await expect(status(page)).toContainText('Screening stages');
    await page.getByRole('button', { name: 'Stop' }).click();
    await expect(status(page)).toContainText('Stopped');
    // A mass that none can have: every kind says by how much it misses.
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Brief/ })
      .click();
    await type(page, 'Mass limit', '20 g');
    await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
    await page
      .getByRole('navigation', { name: 'Sheets of the line' })
      .getByRole('link', { name: 'Find lines' })
      .click();
    await page.getByText('all kinds allowed').click();
    for (const kind of ['planetary', 'shared-planet', 'cycloidal', 'ring plate', 'strain wave', 'worm'])
      await page.getByRole('checkbox', { name: kind, exact: true }).uncheck();
    await page.getByRole('combobox', { name: 'Stages, at most' }).selectOption('1');
    await page.getByRole('button', { name: /^Find (lines|again)$/ }).click();
    const why = page.getByRole('region', { name: 'Why not' });
    await expect(why).toContainText(/Belt.*has mass .*; at most 0.02 kg is asked/, { timeout: 60_000 });
    await expect(page.getByRole('alert')).toContainText('No line that was put together meets every must');
    await why.getByRole('button', { name: 'Look at it as a variant' }).first().click();
    await expect(page.locator('aside [data-limit="mass"]')).toContainText('over');
  });
});
