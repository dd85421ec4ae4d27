import { unzipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { blankJoint, expect, expectAccessible, openDemo, saved, settled, test, type } from './fixture.ts';

const checks = (page: import('@playwright/test').Page) => page.getByRole('region', { name: 'Checks of the stage' });

test.describe('toothed stages', () => {
  test('a planetary set: counts that do not assemble are told and mended, then its files come out', async ({
    page,
  }) => {
    await openDemo(page, 'Stage', 'Wing root');
    await settled(page);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/planetary/);
    await expect(page.locator('[data-layer="teeth"] path')).not.toHaveCount(0);
    await expect(page.locator('[data-layer="contact"] path')).not.toHaveCount(0);
    // One count changed: what no longer assembles is told with the nearest counts that do.
    await type(page, 'Sun', '19');
    await expect(checks(page)).toContainText('Planets can be put in evenly');
    const mend = checks(page).getByRole('button', { name: /^Sun \d+, planet \d+, ring \d+$/ });
    await mend.click();
    await expect(checks(page).getByRole('button', { name: /^Sun \d+, planet/ })).toHaveCount(0);
    // Screws of the output that stand in the planets' pins are told, and moved clear.
    await type(page, 'Screws, output', '8');
    await type(page, 'Their circle', '36 mm');
    const screws = page.locator('[data-check="flangeWall"]');
    await expect(screws).toHaveAttribute('data-state', 'fails');
    await screws.getByRole('button', { name: /screws on ⌀/ }).click();
    await expect(page.locator('[data-check="flangeWall"][data-state="fails"]')).toHaveCount(0);
    // Other counts from the desk, as one step to undo.
    const ring = page.getByRole('textbox', { name: 'Ring', exact: true });
    const before = await ring.inputValue();
    await page
      .getByRole('table', { name: 'Sets of teeth that assemble' })
      .getByRole('button', { name: /^Take/ })
      .first()
      .click();
    await expect(ring).not.toHaveValue(before);
    await page.keyboard.press('Control+z');
    await expect(ring).toHaveValue(before);
    await expectAccessible(page);
    await saved(page);
    await page.getByRole('link', { name: /^Make/ }).click();
    const [stl] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Ring tube as STL' }).click(),
    ]);
    const bytes = readFileSync(await stl.path());
    expect(bytes.length).toBe(84 + 50 * bytes.readUInt32LE(80));
    const [all] = await Promise.all([
      page.waitForEvent('download'),
      page
        .getByRole('region', { name: 'Parts of stage 1' })
        .getByRole('button', { name: 'All parts as one 3MF' })
        .click(),
    ]);
    expect(
      readFileSync(await all.path())
        .subarray(0, 2)
        .toString(),
    ).toBe('PK');
    const [dxf] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Planet, set 1 as DXF' }).click(),
    ]);
    expect(readFileSync(await dxf.path(), 'utf8')).toContain('PROFILE');
  });

  test('a whole line: its bill for some joints, less what lies in the drawer, and all of it as one zip', async ({
    page,
  }) => {
    // On a busy machine its bodies take long.
    test.slow();
    await openDemo(page, 'Make', 'Wing root');
    const line = page.getByRole('region', { name: 'The whole line' });
    await expect(line).toContainText(/\d+ pieces of \d+ kinds/);
    await line.getByText('Every piece').click();
    const first = line.getByRole('table', { name: 'Bill of materials' }).getByRole('row').nth(1);
    await expect(first).toContainText('motor');
    await type(page, 'Joints to make', '4');
    await expect(line).toContainText('For 4 joints');
    await expect(first.getByRole('cell').nth(3)).toHaveText('4');
    await expectAccessible(page);
    const [csv] = await Promise.all([
      page.waitForEvent('download'),
      line.getByRole('button', { name: 'Bill of materials as CSV' }).click(),
    ]);
    expect(csv.suggestedFilename()).toMatch(/_bill\.csv$/);
    expect(readFileSync(await csv.path(), 'utf8')).toMatch(/^name,for,how,material,note,a joint,needed/);
    // A bed that is too small is told, and nothing is written.
    await type(page, 'Bed, across', '20 mm');
    await type(page, 'Bed, deep', '20 mm');
    await line.getByRole('button', { name: 'Everything as one zip' }).click();
    await expect(page.getByText(/does not go on the plate/)).toBeVisible({ timeout: 60_000 });
    await type(page, 'Bed, across', '250 mm');
    await type(page, 'Bed, deep', '250 mm');
    const [zip] = await Promise.all([
      page.waitForEvent('download', { timeout: 60_000 }),
      line.getByRole('button', { name: 'Everything as one zip' }).click(),
    ]);
    const names = Object.keys(unzipSync(new Uint8Array(readFileSync(await zip.path()))));
    expect(names).toEqual(expect.arrayContaining(['bill.csv', 'bill.md', 'assembly.md', 'manifest.json']));
    expect(names.some((n) => /^plates\/.*\.3mf$/.test(n))).toBe(true);
    expect(names).toContain('stl/stage1-ring.stl');
  });

  test('what wears and tires is told in hours against the life asked, leaves the torque alone, and is mended', async ({
    page,
  }) => {
    await openDemo(page, 'Line', 'Wing root');
    await settled(page);
    await page.getByRole('combobox', { name: 'Variant' }).selectOption({ label: 'C' });
    const tally = page.getByRole('complementary', { name: 'Tally' });
    await expect(tally.locator('[data-limit="life"]')).toHaveAttribute('data-state', 'fails');
    const torque = tally.locator('[data-limit="torque"] [data-figure]');
    const before = await torque.innerText();
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Stage/ })
      .click();
    const worn = checks(page).locator('[data-check="pit-ring1"]');
    await expect(worn).toContainText(/Flanks of planets and held ring wear.*h.*≥ 1500 h/s);
    await expect(worn).toHaveAttribute('data-state', 'fails');
    await expect(torque).toHaveText(before);
    await worn.getByRole('button', { name: /^Face width/ }).click();
    await expect(worn).not.toHaveAttribute('data-state', 'fails');
  });

  test('a spur pair from nothing: chosen, drawn, its centre distance met, a bad one refused in words', async ({
    page,
  }) => {
    await page.goto('/');
    await blankJoint(page);
    await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
    await page.getByRole('button', { name: 'Add stage' }).click();
    await page.getByRole('menuitem', { name: /^Spur/ }).click();
    await page.getByRole('button', { name: 'Add the stage' }).click();
    await expect(page.getByRole('form', { name: 'New stage' })).toHaveCount(0);
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Stage/ })
      .click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/spur/);
    await type(page, 'Driving wheel', '20');
    await type(page, 'Driven wheel', '60');
    await type(page, 'Module', '1 mm');
    await page.getByRole('combobox', { name: 'Given' }).selectOption('centre');
    await type(page, 'Centre distance', '40.3 mm');
    await expect(page.getByRole('main').locator('[data-figure="centre"]').first()).toHaveText(/40\.3 mm/);
    await type(page, 'Centre distance', '30 mm');
    await expect(page.getByText('The wheels cannot run at that centre distance.')).toBeVisible();
    await type(page, 'Centre distance', '40.3 mm');
    await page.getByRole('combobox', { name: 'Driven wheel' }).selectOption('ring');
    await expect(page.getByText(/cannot run|needs more shift/)).toBeVisible();
    await page.getByRole('combobox', { name: 'Given' }).selectOption('shifts');
    await expect(page.locator('[data-layer="teeth"] path')).not.toHaveCount(0);
  });

  test('a worm from nothing: chosen, held under vibration, its play closed by a dual lead, a steep one refused', async ({
    page,
  }) => {
    await page.goto('/');
    await blankJoint(page);
    await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
    await page.getByRole('button', { name: 'Add stage' }).click();
    await page.getByRole('menuitem', { name: /^Worm/ }).click();
    await page.getByRole('button', { name: 'Add the stage' }).click();
    await expect(page.getByRole('form', { name: 'New stage' })).toHaveCount(0);
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Stage/ })
      .click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/worm/);
    await type(page, 'Starts', '1');
    await type(page, 'Wheel', '40');
    await type(page, 'Diameter quotient', '10');
    await page.getByRole('combobox', { name: 'Friction' }).selectOption('given');
    await type(page, 'Coefficient', '0.12');
    await expect(page.getByRole('main').locator('[data-figure="lead"]').first()).toHaveText(/5\.71/);
    await expect(checks(page)).toContainText('Holds under vibration');
    await checks(page)
      .getByRole('button', { name: /^Quotient \d/ })
      .click();
    await expect(page.getByRole('textbox', { name: 'Diameter quotient' })).not.toHaveValue('10');
    await page.getByRole('combobox', { name: 'Play set by' }).selectOption('dual-lead');
    await type(page, 'Worm moved', '20 mm');
    await checks(page).getByRole('button', { name: 'Move the worm back' }).click();
    await expect(page.getByRole('textbox', { name: 'Worm moved' })).not.toHaveValue(/^20/);
    await expect(page.locator('[data-layer="contact"] path')).not.toHaveCount(0);
    await expectAccessible(page);
    await type(page, 'Starts', '12');
    await type(page, 'Diameter quotient', '5');
    await expect(page.getByText('steeper than 45°')).toBeVisible();
  });

  test('the worm of the demo goes out as STEP and as outlines; stopping a file writes nothing', async ({ page }) => {
    await openDemo(page, 'Make', 'Tide dial');
    await page.getByRole('combobox', { name: 'Variant' }).selectOption('c');
    const [step] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Worm as STEP' }).click(),
    ]);
    const text = readFileSync(await step.path(), 'utf8');
    expect(text).toMatch(/^ISO-10303-21;/);
    expect(text).toContain('B_SPLINE');
    expect(text).toMatch(/\.MILLI\.\s*,\s*\.METRE\./);
    const [dxf] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Worm as DXF' }).click(),
    ]);
    expect(readFileSync(await dxf.path(), 'utf8')).toContain('AXIAL-SECTION');
    await type(page, 'Compensation', '0.05 mm');
    const [moved] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Wheel as SVG' }).click(),
    ]);
    expect(readFileSync(await moved.path(), 'utf8')).toMatch(/moved in by 50/);
    await page.getByRole('button', { name: 'as one STEP' }).click();
    await page.getByRole('button', { name: 'Stop' }).click();
    await expect(page.getByText('Stopped; nothing was written.')).toBeVisible();
  });
});
