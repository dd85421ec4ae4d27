import { readFileSync } from 'node:fs';
import { expect, openDemo, saved, settled, test, type } from './fixture.ts';

const figure = (page: import('@playwright/test').Page, id: string) =>
  page.getByRole('main').locator(`[data-figure="${id}"]`).first();

test.describe('the line', () => {
  test('another motor, driver and sensor move reach, heat and resolution', async ({ page }) => {
    await openDemo(page, 'Line');
    const torque = page.locator('[data-limit="torque"] [data-figure]');
    const before = await torque.innerText();
    await page
      .getByRole('combobox', { name: 'From the shop' })
      .selectOption({ label: 'Brushless, 50 mm frame, 170 rpm/V' });
    await expect(page.getByRole('textbox', { name: 'Speed constant' })).toHaveValue('170 rpm/V');
    await expect(torque).not.toHaveText(before);
    await expect(figure(page, 'continuous')).toContainText('N·m');
    await page.getByRole('combobox', { name: 'Rotor sensor' }).selectOption('no');
    await expect(page.getByText(/limited by/)).toBeVisible();
    await page.getByRole('combobox', { name: 'On', exact: true }).selectOption('motor');
    await page.getByText('All figures').click();
    await expect(figure(page, 'keptMotor')).toBeVisible();
    const kept = await figure(page, 'keptMotor').innerText();
    await type(page, 'Counts per turn', '256');
    await expect(figure(page, 'sensedMotor')).toContainText('6.027′');
    expect(kept).not.toBe('');
    await expect(
      page
        .getByRole('img', { name: /Torque and speed at the output/ })
        .locator('path.recharts-curve')
        .first(),
    ).toBeVisible();
  });

  test('variants are duplicated, changed one thing, compared and deleted', async ({ page }) => {
    await openDemo(page, 'Line');
    await settled(page);
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await expect(page.getByRole('combobox', { name: 'Variant' })).toHaveValue(/.+/);
    await expect(page.getByRole('textbox', { name: 'Variant name' })).toHaveValue('C');
    await type(page, 'Supply voltage', '36 V');
    await page.getByRole('link', { name: /^Review/ }).click();
    await expect(page.getByRole('region', { name: 'Changes between variants' })).toContainText('Supply: 24 V → 36 V');
    await expect(page.locator('[data-review="torque"] [data-figure]')).toHaveCount(3);
    await page.getByRole('link', { name: /^Line/ }).click();
    await page.getByRole('button', { name: 'Delete', exact: true }).click();
    await page.getByRole('link', { name: /^Review/ }).click();
    await expect(page.locator('[data-review="torque"] [data-figure]')).toHaveCount(2);
  });

  test('sizing to the brief is one step, and can be undone', async ({ page }) => {
    await openDemo(page, 'Line');
    const strip = page.getByRole('navigation', { name: 'Drive line' });
    const before = await strip.innerText();
    await page.getByRole('button', { name: 'Size to the brief' }).click();
    await expect.poll(() => strip.innerText()).not.toBe(before);
    await page.keyboard.press('Control+z');
    await expect.poll(() => strip.innerText()).toBe(before);
  });

  test('stages are reordered by dragging from the keyboard', async ({ page }) => {
    await openDemo(page, 'Line');
    const ratio = page.locator('tr[data-stage="1"] td').nth(2);
    await expect(ratio).toHaveText('3.5');
    await page.getByRole('button', { name: 'Move stage 1', exact: true }).focus();
    await page.keyboard.press('Enter');
    await page.waitForTimeout(200);
    await page.keyboard.press('ArrowDown');
    await page.waitForTimeout(200);
    await page.keyboard.press('Enter');
    await expect(ratio).toHaveText('4');
  });
});

test.describe('the stage', () => {
  test('centre distance both ways, an open-ended belt and an idler', async ({ page }) => {
    await openDemo(page, 'Stage');
    await expect(figure(page, 'centre')).toContainText('69.35 mm');
    await page.getByRole('combobox', { name: 'Given' }).selectOption({ label: 'Centre distance' });
    await type(page, 'Wanted centres', '80 mm');
    await expect(figure(page, 'length')).toContainText(/27\d mm/);
    await page.getByRole('combobox', { name: 'Closure' }).selectOption({ label: 'Open-ended, clamped' });
    await expect(figure(page, 'centre')).toContainText('80 mm');
    const wrap = await figure(page, 'wrap').innerText();
    await page.getByRole('combobox', { name: 'Idler' }).selectOption({ label: 'Outside, flat' });
    await expect(figure(page, 'wrap')).not.toHaveText(wrap);
    // What holds is folded into one line.
    await expect(page.locator('[data-check="back"]')).toBeHidden();
    await page.getByText(/^✓ \d+ checks hold$/).click();
    await expect(page.locator('[data-check="back"]')).toBeVisible();
    await type(page, 'Idler diameter', '4 mm');
    await expect(page.locator('[data-check="back"]')).toHaveAttribute('data-state', 'fails');
    await page.locator('[data-check="back"]').getByRole('button').click();
    await expect(page.locator('[data-check="back"]')).toHaveAttribute('data-state', 'holds');
  });

  test('the drawing pans, zooms, fits, hides layers and runs', async ({ page }) => {
    await openDemo(page, 'Stage');
    const sheet = page.locator('svg[data-drawing]');
    const box = () => sheet.getAttribute('viewBox');
    // The sheet has its size once the figures below it are there.
    await expect(figure(page, 'centre')).toContainText('mm');
    await page.waitForTimeout(300);
    const fit = await box();
    await page.getByRole('button', { name: 'Zoom in' }).click();
    await expect.poll(box).not.toBe(fit);
    await sheet.hover();
    await page.mouse.down();
    await page.mouse.move(500, 300, { steps: 3 });
    await page.mouse.up();
    await page.getByRole('button', { name: 'Fit', exact: true }).click();
    await expect.poll(box).toBe(fit);
    await sheet.focus();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('+');
    await expect.poll(box).not.toBe(fit);
    await page.keyboard.press('0');
    await expect.poll(box).toBe(fit);
    await page.getByText(/^\d+ more layers$/).click();
    await page.getByLabel('Forces on the shafts').uncheck();
    await expect(page.locator('[data-layer="forces"]')).toHaveCount(0);
    await page.getByLabel('Forces on the shafts').check();
    await expect(page.locator('figure svg text', { hasText: / N$/ }).first()).toBeVisible();
    const mark = () => page.locator('[data-layer="marks"] path').first().getAttribute('transform');
    const still = await mark();
    await page.getByRole('button', { name: 'Run' }).click();
    await expect.poll(mark).not.toBe(still);
    await page.getByRole('button', { name: 'Stop' }).click();
    const stopped = await mark();
    await page.waitForTimeout(200);
    expect(await mark()).toBe(stopped);
  });

  test('the pulley goes out as SVG with exact arcs', async ({ page }) => {
    await openDemo(page, 'Make');
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page
        .getByRole('region', { name: 'Parts of stage 1' })
        .getByRole('button', { name: 'Driven pulley as SVG' })
        .click(),
    ]);
    expect(file.suggestedFilename()).toBe('Body-yaw_A_stage1_driven.svg');
    const svg = readFileSync(await file.path(), 'utf8');
    expect(svg).toMatch(/width="[\d.]+mm"/);
    expect(svg).toMatch(/<g id="profile">\s*<path d="M[^"]*A[^"]*Z"/);
  });
});

test.describe('the tally', () => {
  test('folds, widens from the keyboard, and opens the budget of what was found', async ({ page }) => {
    await openDemo(page);
    const tally = page.getByRole('complementary', { name: 'Tally' });
    const width = async () => (await tally.boundingBox())!.width;
    const before = await width();
    await page.getByRole('separator', { name: 'Width of the tally' }).press('ArrowLeft');
    expect(await width()).toBeCloseTo(before + 16, 0);
    await tally.getByRole('button', { name: 'Fold' }).click();
    expect(await width()).toBeLessThan(60);
    await tally.getByRole('button', { name: 'Tally' }).click();
    await tally.locator('[data-found]').first().click();
    const panel = page.getByRole('dialog', { name: /Found/ });
    await expect(panel).toContainText('Where the uncertainty comes from');
    await expect(panel.getByRole('row')).toHaveCount(4);
  });
});

test.describe('builds and tests', () => {
  test('a build is recorded with its process, and deleting it takes its tests along, undoably', async ({ page }) => {
    await openDemo(page, 'Make');
    await page.getByRole('button', { name: 'Record a build' }).click();
    const build = page.locator('[data-build="A-2"]');
    await build.getByRole('textbox', { name: 'Process' }).fill('Laser, 3 mm acetal');
    await build.getByRole('textbox', { name: 'Notes, deviations' }).click();
    await saved(page);
    await page.reload();
    await expect(page.locator('[data-build="A-2"]').getByRole('textbox', { name: 'Process' })).toHaveValue(
      'Laser, 3 mm acetal',
    );
    await page
      .locator('[data-build="A-1"]')
      .getByRole('button', { name: /^Delete with its \d tests$/ })
      .click();
    await page.getByRole('link', { name: /^Bench/ }).click();
    await expect(page.getByRole('heading', { name: 'Nothing measured yet.' })).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(page.getByRole('heading', { name: /Torque ladder/ })).toBeVisible();
  });

  test('the printed sheet leaves the frame out and keeps the figures', async ({ page }) => {
    await openDemo(page, 'Review');
    await expect(page.locator('[data-review="play"] [data-found]')).toHaveCount(1);
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByRole('navigation', { name: 'Views' })).toBeHidden();
    await expect(page.getByRole('complementary', { name: 'Tally' })).toBeHidden();
    await expect(page.getByText(/Gristmill · Body yaw · variant A/)).toBeVisible();
    await expect(page.locator('[data-review="play"] [data-found]')).toBeVisible();
  });

  test('a motor of one’s own is added to the shop and used', async ({ page }) => {
    await openDemo(page, 'Shop');
    await page.getByRole('button', { name: 'Copy Stepper, 42 mm frame, 40 long' }).click();
    const name = page.getByRole('region', { name: 'Motors' }).getByRole('textbox', { name: 'Name' });
    await name.fill('Attic stepper');
    await name.press('Enter');
    await type(page, 'Holding torque', '59 ozf·in');
    await page.getByRole('link', { name: /^Line/ }).click();
    await page.getByRole('combobox', { name: 'From the shop' }).selectOption({ label: 'Attic stepper' });
    await expect(page.getByRole('textbox', { name: 'Holding torque' })).toHaveValue('0.41663 N·m');
    await saved(page);
    await page.reload();
    await expect(page.getByRole('combobox', { name: 'From the shop' })).toContainText('Attic stepper');
  });
});
