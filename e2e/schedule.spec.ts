import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { expect, expectAccessible, openDemo, saved, test, type } from './fixture.ts';

/** Takes the last change back: in a field the keys would undo what is typed there. */
async function undo(page: Page) {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('Control+z');
}

// When what is printed, made, ordered, put together and tested; what came of it, and what it teaches.

test('a build is planned from nothing, moved, ticked off, learnt from, and goes out as a calendar', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await openDemo(page, 'Make', 'Wing root');
  await page.getByRole('link', { name: 'Schedule', exact: true }).click();
  await page.getByRole('button', { name: 'Plan build B-2' }).click();
  const sum = page.locator('[data-end]');
  await expect(sum).toContainText('All done on', { timeout: 30_000 });
  await expect(sum).toContainText('of printing left');
  await expectAccessible(page);
  const end = async () => Number(await sum.getAttribute('data-end'));
  const before = await end();

  // Twice the hours end it no later; no hours at all are said, and nothing is lost.
  for (const day of ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'])
    await type(page, day, '9');
  await expect(sum).toHaveAttribute('aria-busy', 'false');
  expect(await end()).toBeLessThanOrEqual(before);
  const busy = await end();

  // What comes later holds up what waits for it.
  const order = page.locator('[data-task="buy/motor"]').first();
  await order.getByRole('button', { name: /Order: Motor/ }).click();
  await type(page, 'Comes after, days', '40');
  await expect.poll(end).toBeGreaterThan(busy + 30 * 86400);
  await undo(page);
  await expect.poll(end).toBe(busy);

  // A block is moved by its keys and by dragging; what waits for it moves along.
  const block = page.locator('[data-block^="print/"]').first();
  const id = (await block.getAttribute('data-block'))!;
  await block.focus();
  for (let i = 0; i < 3; i++) {
    await page.keyboard.press('ArrowRight');
    await page.waitForTimeout(150);
  }
  await page.locator(`[data-task="${id}"] button`).first().click();
  await expect(page.getByLabel('Not before', { exact: true })).toHaveValue(/^20\d\d-/);
  await expect(page.getByText(/Reckoned: .* m of line in \d+ layers/)).toBeVisible();
  const [plate] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'This plate as 3MF' }).click(),
  ]);
  expect(plate.suggestedFilename()).toMatch(/^Wing-root_B_Print-.*\.3mf$/);
  expect(
    readFileSync(await plate.path())
      .subarray(0, 2)
      .toString(),
  ).toBe('PK');

  // What is bought is dragged to the day for which it is promised.
  const bar = page.locator('[data-block="buy/motor"]').last();
  await bar.scrollIntoViewIfNeeded();
  const box = (await bar.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + 5);
  await page.mouse.down();
  await page.mouse.move(box.x + 20 + 2 * 92, box.y + 5, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByLabel('Promised for', { exact: true })).toHaveValue(/^20\d\d-/);
  await undo(page);
  await expect(page.getByLabel('Promised for', { exact: true })).toHaveValue('');
  await page.locator(`[data-task="${id}"] button`).first().click();

  // A print that took twice as long teaches the printer’s speed, once.
  await type(page, 'It took', '20 h');
  const learnt = page.getByRole('region', { name: 'What your times say' });
  await expect(learnt).toContainText('by 1 time');
  await learnt.getByRole('button', { name: 'Take over into the shop' }).click();
  await expect(page.getByRole('region', { name: 'What your times say' })).toHaveCount(0);

  // Ticked off, a print is done and does not come back; the plan that is kept shows what slips.
  const prints = await page.locator('[data-block^="print/"]').count();
  await page.locator(`[data-task="${id}"] input[type=checkbox]`).check();
  await expect(page.locator('[data-block^="print/"]')).toHaveCount(prints - 2);
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('is told as late')).toBeVisible();
  const bearings = page.locator('[data-task="buy/bearings"]').first();
  await bearings.getByRole('button', { name: /Order: Bearings/ }).click();
  await type(page, 'Comes after, days', '30');
  const late = page.getByRole('region', { name: 'What is late or cannot be' });
  await expect(late).toContainText(/Bearings ends .* later than in the plan you kept/);
  await expect(late).toContainText('Put together');

  const [ics] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Calendar file' }).click(),
  ]);
  const calendar = readFileSync(await ics.path(), 'utf8');
  expect(calendar).toMatch(/^BEGIN:VCALENDAR\r\n/);
  expect(calendar).toContain('SUMMARY:Comes: Bearings');
  const [list] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Markdown', exact: true }).click(),
  ]);
  expect(readFileSync(await list.path(), 'utf8')).toContain('[x]');

  await saved(page);
  await page.reload();
  await expect(late).toContainText('Bearings', { timeout: 30_000 });

  // On paper the whole list is there, and none of the fields.
  await page.emulateMedia({ media: 'print' });
  const region = page.getByRole('region', { name: 'Day by day' });
  expect(await region.evaluate((e) => e.scrollHeight - e.clientHeight)).toBeLessThan(2);
  await expect(page.getByLabel('Monday', { exact: true })).toBeHidden();
});

test('what cannot be planned is said: no hours, prints that are too long, a bed that is too small, words for days', async ({
  page,
}) => {
  test.setTimeout(90_000);
  await openDemo(page, 'Make', 'Neck lift');
  await page.getByRole('link', { name: 'Schedule', exact: true }).click();
  await page.getByRole('button', { name: /^Plan build|^Record a build and plan it/ }).click();
  await expect(page.locator('[data-end]')).toContainText('All done on', { timeout: 30_000 });
  const cannot = page.getByRole('region', { name: 'What is late or cannot be' });
  await type(page, 'Saturday', '1');
  await page.getByRole('checkbox', { name: 'machines run on while I am away' }).uncheck();
  await expect(cannot).toContainText('let machines run unattended');
  await page.getByRole('checkbox', { name: 'machines run on while I am away' }).check();
  await expect(cannot).toHaveCount(0);
  await type(page, 'Bed, across', '30 mm');
  await expect(cannot).toContainText('is larger than the bed');
  await undo(page);
  await expect(cannot).toHaveCount(0);
  for (const day of ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']) await type(page, day, '0');
  await expect(cannot).toContainText('No day has any hours');
  await type(page, 'Saturday', '6');
  await expect(page.locator('[data-end]')).toContainText(/All done on Sat/);
  await type(page, 'Wanted by', 'soon');
  await expect(page.getByRole('alert')).toContainText('“soon” is no day');
  await type(page, 'Wanted by', '24.12.2020');
  await expect(cannot).toContainText('after the day it is wanted by');
  await type(page, 'Monday', '-3');
  await expect(page.getByRole('alert').last()).toContainText('too little');
  await page.getByRole('button', { name: 'Take this plan back' }).click();
  await expect(page.getByRole('button', { name: /^Plan build/ })).toBeVisible();
});
