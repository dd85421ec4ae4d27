import { readFileSync } from 'node:fs';
import { expect, expectAccessible, openDemo, saved, settled, test, type } from './fixture.ts';

const checks = (page: import('@playwright/test').Page) => page.getByRole('region', { name: 'Checks of the stage' });

test.describe('lobed stages', () => {
  test('a cycloidal stage of the demo: courses scrub with the drawing, a tight gap is mended, an impossible throw is refused, files come out', async ({ page }) => {
    await openDemo(page, 'Stage', 'Neck lift');
    await page.getByRole('combobox', { name: 'Variant' }).selectOption('c');
    await settled(page);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/cycloidal/);
    const strip = page.getByRole('group', { name: 'Over a turn of the crank' });
    await expect(strip.getByRole('img', { name: /^Pins that carry over a turn/ })).toBeVisible();
    // Dragging in a course turns the crank, and the discs with it.
    const box = (await strip.getByRole('img', { name: /^Worst pin/ }).boundingBox())!;
    await page.mouse.move(box.x + 5, box.y + 10);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, box.y + 10, { steps: 4 });
    await page.mouse.up();
    await expect(page.getByRole('slider', { name: 'Crank angle' })).toHaveValue(/^1[6-9]\d$/);
    await type(page, 'Gap all round', '0 mm');
    await expect(checks(page)).toContainText('Turns without binding');
    await checks(page).getByRole('button', { name: /^Gap 0\.\d+ mm$/ }).click();
    await expect(page.getByRole('textbox', { name: 'Gap all round' })).not.toHaveValue(/^0 mm$/);
    await expectAccessible(page);
    await type(page, 'Eccentricity', '6 mm');
    await expect(page.getByText('loops the profile back on itself')).toBeVisible();
    await page.getByRole('button', { name: /^Eccentricity \d/ }).click();
    await expect(page.locator('[data-layer="teeth"] path')).not.toHaveCount(0);
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    await saved(page);
    await page.getByRole('link', { name: /^Make/ }).click();
    const [dxf] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^Disc.* as DXF$/ }).first().click()]);
    expect(readFileSync(await dxf.path(), 'utf8')).toContain('OUTPUT-HOLES');
    const [step] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^Disc.* as STEP$/ }).first().click()]);
    expect(readFileSync(await step.path(), 'utf8')).toContain('B_SPLINE');
  });

  test('a cycloidal stage from nothing, ring or disc held', async ({ page }) => {
    await page.goto('/');
    await page.getByRole('button', { name: 'Blank joint' }).click();
    await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
    await page.getByRole('button', { name: 'Add stage' }).click();
    await page.getByRole('menuitem', { name: /^Cycloidal/ }).click();
    await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Stage/ }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/cycloidal/);
    const pins = Number(await page.getByRole('textbox', { name: 'Pins', exact: true }).inputValue());
    await expect(page.getByRole('main').locator('[data-figure="ratio"]').first()).toHaveText(new RegExp(`[−-]${pins - 1} : 1`));
    await page.getByRole('combobox', { name: 'Held' }).selectOption('disc');
    await expect(page.getByRole('main').locator('[data-figure="ratio"]').first()).toHaveText(new RegExp(`^${pins} : 1`));
    await type(page, 'Eccentricity', '15 mm');
    await expect(page.getByText('loops the profile back on itself')).toBeVisible();
  });

  test('ring plates: two on one crank jam, the mend takes, and the swept room goes out for the housing', async ({ page }) => {
    await openDemo(page, 'Stage', 'Neck lift');
    await page.getByRole('combobox', { name: 'Variant' }).selectOption('d');
    await settled(page);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/ring plate/);
    await page.getByRole('combobox', { name: 'Cranks' }).selectOption('one');
    await type(page, 'Plates', '2');
    await expect(checks(page)).toContainText('it jams there');
    await checks(page).getByRole('button', { name: 'Three even plates' }).first().click();
    await expect(page.getByRole('textbox', { name: 'Plates', exact: true })).toHaveValue('3');
    await expect(checks(page)).not.toContainText('it jams there');
    await expect(page.getByRole('group', { name: 'Over a turn of the crank' }).getByRole('img')).toHaveCount(4);
    await expectAccessible(page);
    await type(page, 'Crank’s distance', '20 mm');
    await expect(page.getByText('bearing breaks into the lobes')).toBeVisible();
    await page.keyboard.press('Control+z');
    await saved(page);
    await page.getByRole('link', { name: /^Make/ }).click();
    const [room] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Swept room as DXF' }).click()]);
    expect(readFileSync(await room.path(), 'utf8')).toContain('CLEARANCE');
  });
});
