import { readFileSync } from 'node:fs';
import DxfParser from 'dxf-parser';
import { expect, openDemo, saved, test, type } from './fixture.ts';

test('from the demo to asked, expected and found, and it is all there after a reload', async ({ page }) => {
  await openDemo(page);

  // The brief: a heavier load, with the stages following.
  const asked = page.locator('[data-limit="torque"]');
  await expect(asked).toContainText('5.593 N·m');
  await page.getByLabel('Re-size the stages with the brief').check();
  const glyph = page.getByRole('navigation', { name: 'Drive line' }).getByRole('link', { name: /2 Belt/ });
  const before = await glyph.innerHTML();
  await type(page, 'Mass carried', '4 lb');
  await expect(asked).not.toContainText('5.593');
  await expect(page.getByRole('textbox', { name: 'Mass carried' })).toHaveValue('1.8144 kg');
  await expect.poll(() => glyph.innerHTML()).not.toBe(before);
  await expect(asked).toHaveAttribute('data-state', /holds|near/);

  // The drawing of the re-sized stage, turned by the crank.
  await glyph.click();
  await expect(page.getByRole('heading', { name: 'Stage 2, belt' })).toBeVisible();
  const teeth = page.locator('[data-layer="teeth"] path').nth(1);
  const still = await teeth.getAttribute('d');
  await page.keyboard.press('.');
  await expect.poll(() => teeth.getAttribute('d')).not.toBe(still);

  // A pulley as DXF, closed and in millimetres.
  await page.getByRole('link', { name: /^Make/ }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('region', { name: 'Parts of stage 2' })
      .getByRole('button', { name: 'Driving pulley as DXF' })
      .click(),
  ]);
  const dxf = new DxfParser().parseSync(readFileSync(await download.path(), 'utf8'))!;
  expect(dxf.header['$INSUNITS']).toBe(4);
  const profile = dxf.entities.find((e) => e.layer === 'PROFILE') as unknown as {
    shape: boolean;
    vertices: { x: number; y: number }[];
  };
  expect(profile.shape).toBe(true);
  const outer = Math.max(...profile.vertices.map((v) => Math.hypot(v.x, v.y)));
  expect(outer).toBeGreaterThan(4);
  expect(outer).toBeLessThan(40);

  // The bench: a new build of this variant, play from caliper readings, torque from hung masses.
  await page.getByRole('button', { name: 'Record a build' }).click();
  await page.getByRole('link', { name: /^Bench/ }).click();
  await page.getByRole('button', { name: 'New test' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Play at a lever/ })
    .click();
  await page.getByRole('combobox', { name: 'Read with' }).selectOption({ label: 'Digital caliper' });
  for (const [angle, reading] of [
    ['0°', '0.43 mm'],
    ['120°', '0.45 mm'],
    ['240°', '430 µm'],
  ]) {
    await page.getByRole('textbox', { name: 'Output angle' }).fill(angle!);
    await page.getByRole('textbox', { name: 'Difference' }).fill(reading!);
    await page.getByRole('button', { name: 'Add reading' }).click();
  }
  const play = page.getByRole('region', { name: 'Result' }).locator('[data-found="play"]');
  await expect(play).toContainText(/^8\.\d+ ± \d\.\d+′$/);
  await page.getByRole('button', { name: 'New test' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Torque ladder/ })
    .click();
  await page.getByRole('textbox', { name: 'Lever radius' }).fill('300 mm');
  await page.getByRole('textbox', { name: 'Lever radius' }).press('Enter');
  for (const [mass, what] of [
    ['2 kg', 'lifted'],
    ['2.6 kg', 'lifted'],
    ['3.1 kg', 'stalled'],
  ]) {
    await page.getByRole('textbox', { name: 'Mass hung' }).fill(mass!);
    await page.getByRole('combobox', { name: 'What happened' }).selectOption({ label: what! });
    await page.getByRole('button', { name: 'Add rung' }).click();
  }
  await expect(page.getByRole('region', { name: 'Result' }).locator('[data-found]')).toContainText(/± .* N·m/);
  await expect(page.getByRole('region', { name: 'Result' })).toContainText('Try');

  // What was found of this build decides now: play asked below 6′ is over, whatever was expected.
  await expect(page.locator('[data-limit="play"]')).toHaveAttribute('data-by', 'found');
  await expect(page.locator('[data-limit="play"]')).toHaveAttribute('data-state', 'fails');

  // Asked, expected and found side by side.
  await page.getByRole('link', { name: /^Review/ }).click();
  const row = page.locator('[data-review="play"]');
  await expect(row.locator('[data-found]')).toHaveCount(2);
  await expect(row.locator('[data-figure]')).toHaveCount(2);
  await expect(page.locator('[data-difference]').filter({ hasText: /Found play/ })).toHaveCount(2);

  // And after a reload.
  await saved(page);
  await page.reload();
  await expect(page.locator('[data-review="play"] [data-found]')).toHaveCount(2);
  await page.getByRole('link', { name: /^Brief/ }).click();
  await expect(page.getByRole('textbox', { name: 'Mass carried' })).toHaveValue('1.8144 kg');
});
