import { readFileSync } from 'node:fs';
import { blankJoint, expect, expectAccessible, openDemo, saved, settled, test, type } from './fixture.ts';

const checks = (page: import('@playwright/test').Page) => page.getByRole('region', { name: 'Checks of the stage' });

test.describe('lobed stages', () => {
  test('a cycloidal stage of the demo: courses scrub with the drawing, a tight gap is mended, an impossible throw is refused, files come out', async ({
    page,
  }) => {
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
    await checks(page)
      .getByRole('button', { name: /^Gap 0\.\d+ mm$/ })
      .click();
    await expect(page.getByRole('textbox', { name: 'Gap all round' })).not.toHaveValue(/^0 mm$/);
    await expectAccessible(page);
    await type(page, 'Eccentricity', '6 mm');
    await expect(page.getByText('loops the profile back on itself')).toBeVisible();
    await page.getByRole('button', { name: /^Eccentricity \d/ }).click();
    await expect(page.locator('[data-layer="teeth"] path')).not.toHaveCount(0);
    // Pins that stand out of their housing are refused, with a wall that holds them.
    await type(page, 'Housing wall', '2 mm');
    await expect(page.getByText('The pins stand out of the housing.')).toBeVisible();
    await page.getByRole('button', { name: /^Wall \d/ }).click();
    await expect(page.getByRole('textbox', { name: 'Housing wall' })).toHaveValue(/^6 mm$/);
    for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
    await saved(page);
    await page.getByRole('link', { name: /^Make/ }).click();
    const [dxf] = await Promise.all([
      page.waitForEvent('download'),
      page
        .getByRole('button', { name: /^Disc.* as DXF$/ })
        .first()
        .click(),
    ]);
    expect(readFileSync(await dxf.path(), 'utf8')).toContain('OUTPUT-HOLES');
    const [step] = await Promise.all([
      page.waitForEvent('download'),
      page
        .getByRole('button', { name: /^Disc.* as STEP$/ })
        .first()
        .click(),
    ]);
    expect(readFileSync(await step.path(), 'utf8')).toContain('B_SPLINE');
  });

  test('a lobed stage is entered by ratio and outside, all else moves along', async ({ page }) => {
    await openDemo(page, 'Stage', 'Neck lift');
    await page.getByRole('combobox', { name: 'Variant' }).selectOption('c');
    await settled(page);
    const material = await page.getByRole('combobox', { name: 'Discs', exact: true }).last().inputValue();
    const circle = page.getByRole('textbox', { name: 'Pin circle' });
    const before = await circle.inputValue();
    const ratio = page.getByRole('textbox', { name: 'Ratio', exact: true });
    await ratio.fill('15');
    await ratio.press('Enter');
    await page.getByRole('textbox', { name: 'Outside', exact: true }).fill('70 mm');
    await page.getByRole('textbox', { name: 'Outside', exact: true }).press('Enter');
    await page.getByRole('button', { name: 'Move all along' }).click();
    await expect(page.getByRole('button', { name: 'Move all along' })).toHaveCount(0);
    await expect(circle).not.toHaveValue(before);
    await expect(ratio).toHaveValue(/^1[45](\.\d+)? : 1$/);
    await expect(page.getByRole('combobox', { name: 'Discs', exact: true }).last()).toHaveValue(material);
    await page.keyboard.press('Control+z');
    await expect(circle).toHaveValue(before);
  });

  test('a cycloidal stage from nothing, ring or disc held', async ({ page }) => {
    await page.goto('/');
    await blankJoint(page);
    await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
    await page.getByRole('button', { name: 'Add stage' }).click();
    await page.getByRole('menuitem', { name: /^Cycloidal/ }).click();
    await page.getByRole('button', { name: 'Add the stage' }).click();
    await expect(page.getByRole('form', { name: 'New stage' })).toHaveCount(0);
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Stage/ })
      .click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/cycloidal/);
    const pins = Number(await page.getByRole('textbox', { name: 'Pins', exact: true }).inputValue());
    await expect(page.getByRole('main').locator('[data-figure="ratio"]').first()).toHaveText(
      new RegExp(`[−-]${pins - 1} : 1`),
    );
    await page.getByRole('combobox', { name: 'Held' }).selectOption('disc');
    await expect(page.getByRole('main').locator('[data-figure="ratio"]').first()).toHaveText(
      new RegExp(`^${pins} : 1`),
    );
    await type(page, 'Eccentricity', '15 mm');
    await expect(page.getByText('loops the profile back on itself')).toBeVisible();
  });

  test('two lobes less: half the ratio, an odd ring is refused and mended, cut-off lobes stand clear', async ({
    page,
  }) => {
    await openDemo(page, 'Stage', 'Neck lift');
    await page.getByRole('combobox', { name: 'Variant' }).selectOption('c');
    await settled(page);
    await type(page, 'Pins', '27');
    await page.getByRole('combobox', { name: 'Lobes less' }).selectOption({ label: 'two' });
    await expect(page.getByText('27 pins do not go with a disc of two lobes less')).toBeVisible();
    await page.getByRole('button', { name: '28 pins' }).click();
    const ratio = page.getByRole('main').locator('[data-figure="ratio"]').first();
    await expect(ratio).toHaveText(/^[−-]13 : 1/);
    await expect(page.getByRole('main').locator('[data-figure="cutOff"]').first()).toHaveText(/mm/);
    await page.getByRole('combobox', { name: 'Held' }).selectOption('disc');
    await expect(ratio).toHaveText(/^14 : 1/);
    await page.keyboard.press('Control+z');
    await saved(page);
    await page.getByRole('link', { name: /^Make/ }).click();
    const [dxf] = await Promise.all([
      page.waitForEvent('download'),
      page
        .getByRole('button', { name: /^Disc.* as DXF$/ })
        .first()
        .click(),
    ]);
    expect(readFileSync(await dxf.path(), 'utf8')).toContain('OUTPUT-HOLES');
  });

  test('ring plates: two on one crank jam, the mend takes, and the swept room goes out for the housing', async ({
    page,
  }) => {
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
    const [room] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Swept room as DXF' }).click(),
    ]);
    expect(readFileSync(await room.path(), 'utf8')).toContain('CLEARANCE');
  });
});

test.describe('strain waves', () => {
  test('the demo’s strain wave: both ratios, a clash seen in map and check and mended, files come out', async ({
    page,
  }) => {
    await openDemo(page, 'Stage', 'Tide dial');
    await page.getByRole('combobox', { name: 'Variant' }).selectOption('d');
    await settled(page);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/strain wave/);
    const held = page.getByRole('table', { name: 'Which member is bolted' });
    await expect(held).toContainText('40 : 1');
    await expect(held).toContainText('41 : 1');
    await held.getByRole('button', { name: 'Take the spline bolted' }).click();
    await expect(page.getByRole('main').locator('[data-figure="ratio"]').first()).toHaveText(/^41 : 1/);
    await page.keyboard.press('Control+z');
    await type(page, 'Depth factor', '1.12');
    const clash = checks(page).getByText('Teeth pass without clashing');
    await expect(clash).toBeVisible();
    await expect(page.getByRole('img', { name: /^All teeth over a turn of the crank, least [−-]/ })).toBeVisible();
    await page.getByRole('button', { name: 'Open the map: All teeth' }).click();
    const map = page.getByRole('dialog').getByRole('img');
    const box = (await map.boundingBox())!;
    await page.mouse.move(box.x + 3, box.y + 3);
    await expect(page.getByRole('dialog')).toContainText('tooth 1 at');
    await expectAccessible(page);
    await page.keyboard.press('Escape');
    await checks(page)
      .getByRole('button', { name: /^(Allowance|Depth factor|Addendum)/ })
      .first()
      .click();
    await expect(page.getByRole('img', { name: /^All teeth over a turn of the crank, least \d/ })).toBeVisible();
    await type(page, 'Neutral line', '29 mm');
    await expect(page.getByText('roots cut into its wall')).toBeVisible();
    await page.getByRole('button', { name: /^Neutral line 2/ }).click();
    await expect(page.getByText('roots cut into its wall')).toHaveCount(0);
    await saved(page);
    await page.getByRole('link', { name: /^Make/ }).click();
    const [dxf] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Ring as DXF' }).click(),
    ]);
    expect(readFileSync(await dxf.path(), 'utf8')).toContain('TEETH');
    const [stl] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Spline as STL' }).click(),
    ]);
    expect(readFileSync(await stl.path()).length).toBeGreaterThan(20_000);
  });

  test('a strain wave from nothing, with rollers, then a belt as its spline', async ({ page }) => {
    await page.goto('/');
    await blankJoint(page);
    await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
    await page.getByRole('button', { name: 'Add stage' }).click();
    await page.getByRole('menuitem', { name: /^Strain wave/ }).click();
    await page.getByRole('button', { name: 'Add the stage' }).click();
    await expect(page.getByRole('form', { name: 'New stage' })).toHaveCount(0);
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Stage/ })
      .click();
    await page.getByRole('combobox', { name: 'Shape' }).selectOption('four');
    await page.getByRole('combobox', { name: 'Bearing or roller' }).selectOption('623');
    await page.getByText('Rollers round a lobe').click();
    await expect(page.getByRole('table', { name: 'Rollers round a lobe' })).toContainText('25°');
    await page.getByRole('combobox', { name: 'Tooth form' }).selectOption('belt');
    await page.getByRole('combobox', { name: 'Spline', exact: true }).first().selectOption('belt');
    await expect(page.locator('[data-layer="teeth"] path')).not.toHaveCount(0);
    await page.getByRole('link', { name: /^Make/ }).click();
    await expect(page.getByRole('button', { name: 'Ring of as many teeth as DXF' })).toBeVisible();
  });
});
