import { expect, expectAccessible, openDemo, saved, settled, test, type } from './fixture.ts';

const VIEWS = ['Brief', 'Line', 'Stage', 'Make', 'Bench', 'Review', 'Shop'];

test.describe('the frame', () => {
  for (const sheet of ['light', 'dark'] as const) {
    test(`no axe violation on any page, ${sheet} sheet`, async ({ page }) => {
      test.setTimeout(240_000);
      // On the dark sheet what is new is its colours.
      const common = sheet === 'light' ? 'all' : 'contrast';
      await page.emulateMedia({ colorScheme: sheet });
      await page.goto('/');
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await expectAccessible(page, common);
      await openDemo(page);
      for (const view of VIEWS) {
        await page
          .getByRole('navigation', { name: 'Views' })
          .getByRole('link', { name: new RegExp(`^${view}`) })
          .click();
        await expect(page).toHaveURL(new RegExp(view.toLowerCase()));
        await expect(page.getByRole('main').getByRole('heading', { level: 1 })).toBeVisible();
        await settled(page);
        await expectAccessible(page, common);
      }
      // Each sheet in one light or the other; what both have in common is above.
      for (const name of sheet === 'light' ? ['Motor', 'Shares', 'What if'] : ['Ratio desk', 'Compare']) {
        await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
        await page.getByRole('navigation', { name: 'Sheets of the line' }).getByRole('link', { name }).click();
        await expect(page.getByRole('main').getByRole('heading', { level: 1 })).toBeVisible();
        await settled(page);
        await expectAccessible(page);
      }
      for (const shelf of sheet === 'light' ? ['Materials', 'Units'] : ['Factors']) {
        await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Shop/ }).click();
        await page.getByRole('tab', { name: shelf }).click();
        // A few rows say as much as all of them.
        if (shelf === 'Factors') await page.getByRole('textbox', { name: 'find' }).fill('motor');
        await expectAccessible(page);
      }
      await page.getByRole('link', { name: 'Gristmill' }).click();
      await expect(page.locator('[data-joint="Body yaw"]')).toBeVisible();
      await expectAccessible(page, common);
      await page.getByRole('button', { name: 'New joint' }).click();
      await expectAccessible(page, common);
    });
  }

  test('every action is in the palette with its key, and runs from there', async ({ page }) => {
    await openDemo(page);
    await page.keyboard.press('Control+k');
    const palette = page.getByRole('dialog', { name: 'All actions' });
    await expect(palette).toBeVisible();
    for (const name of [
      'Go to Bench',
      'Undo',
      'Redo',
      'Export this joint to a file',
      'Light or dark sheet',
      'Earlier saves of this joint',
      'Open variant B',
    ])
      await expect(palette.getByRole('option', { name: new RegExp(name) })).toHaveCount(1);
    await expectAccessible(page);
    await palette.getByRole('combobox').fill('dark');
    await page.keyboard.press('Enter');
    await expect(palette).toBeHidden();
    await expect(page.locator('html')).toHaveAttribute('data-sheet', 'dark');
    await page.keyboard.press('5');
    await expect(page).toHaveURL(/\/bench/);
    // The shop has the same keys on a page of its own; leaving it inside a joint must not take them along.
    await page.keyboard.press('7');
    await expect(page.getByRole('tab', { name: 'Motors' })).toBeVisible();
    await page.keyboard.press('5');
    await expect(page).toHaveURL(/\/bench/);
    await page.keyboard.press('t');
    await expect(page.locator('html')).toHaveAttribute('data-sheet', 'light');
    await page.keyboard.press('t');
    await expect(page.locator('html')).toHaveAttribute('data-sheet', 'dark');
    await page.keyboard.press('3');
    await expect(page).toHaveURL(/\/stage\/1/);
    await page.keyboard.press(']');
    await expect(page).toHaveURL(/\/stage\/2/);
    await page.keyboard.press('[');
    await expect(page).toHaveURL(/\/stage\/1/);
  });

  test('the field’s terms lead to the words for them', async ({ page }) => {
    await openDemo(page);
    await page.keyboard.press('Control+k');
    const palette = page.getByRole('dialog', { name: 'All actions' });
    await palette.getByRole('combobox').fill('backlash');
    await expect(palette.getByRole('option').first()).toContainText('play: backlash');
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/\/words\?word=play/);
    await expect(page.locator('[data-word="play"]')).toHaveAttribute('aria-current', 'true');
    await expectAccessible(page);
    await page.getByRole('searchbox', { name: 'find' }).fill('pitting');
    await expect(page.locator('tbody tr')).toHaveCount(1);
    await page.getByRole('searchbox', { name: 'find' }).fill('zebra');
    await expect(page.getByText('No word and no term of that name.')).toBeVisible();
    await page.goBack();
    await expect(page).toHaveURL(/\/brief/);
  });

  test('undo and redo take a change back and bring it again', async ({ page }) => {
    await openDemo(page);
    const load = page.getByRole('textbox', { name: 'Mass carried' });
    await type(page, 'Mass carried', '2 kg');
    await expect(load).toHaveValue('2 kg');
    await page.getByRole('heading', { name: /Arm against gravity/ }).click();
    await page.keyboard.press('Control+z');
    await expect(load).toHaveValue('1.1 kg');
    await page.keyboard.press('Control+Shift+z');
    await expect(load).toHaveValue('2 kg');
  });

  test('a figure opens its working with terms, source and what moves it', async ({ page }) => {
    await openDemo(page);
    await page.locator('[data-limit="stiffness"] [data-figure]').click();
    const panel = page.getByRole('dialog', { name: 'Stiffness' });
    await expect(panel).toContainText('1/k = Σ 1/(kⱼ·Dⱼ²)');
    await expect(panel).toContainText('springs in series');
    await expect(panel.getByRole('listitem')).toHaveCount(3, { timeout: 20_000 });
    await expect(panel.getByRole('listitem').first()).toContainText(/stage 2|shop/);
    await expectAccessible(page);
    await page.keyboard.press('Escape');
    await expect(panel).toBeHidden();
    // A check, and a stage's share in the line, lead to workings too.
    await page
      .getByRole('link', { name: /2 Belt/ })
      .first()
      .click();
    await page.getByText(/^✓ \d+ checks hold$/).click();
    await page
      .locator('[data-check="jump"]')
      .getByRole('button', { name: /open the working of Jumps a tooth at/ })
      .click();
    await expect(page.getByRole('dialog', { name: 'Jumps a tooth at' })).toContainText('κ·Fᵢ');
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: /^Line/ }).click();
    await page
      .getByRole('button', { name: /^wind-up .*open working/ })
      .first()
      .click();
    await expect(page.getByRole('dialog', { name: 'Wind-up, holding' })).toContainText('two-slope springs');
  });

  test('nothing is cut off at 768, 900, 1280 or 1920 px, and Line and Stage need no page scroll at 1280 × 800', async ({
    page,
  }) => {
    test.setTimeout(120_000);
    await openDemo(page);
    for (const view of VIEWS) {
      await page.setViewportSize({ width: 1280, height: 800 });
      await page
        .getByRole('navigation', { name: 'Views' })
        .getByRole('link', { name: new RegExp(`^${view}`) })
        .click();
      await expect(page.getByRole('main').getByRole('heading').first()).toBeVisible();
      await settled(page);
      // The page, and the column with the drawing or the plot; the form beside it may scroll.
      if (view === 'Line' || view === 'Stage')
        await expect
          .poll(() =>
            page
              .getByRole('main')
              .evaluate((m) =>
                Math.max(
                  m.scrollHeight - m.clientHeight,
                  m.querySelector('h1')!.closest('.overflow-y-auto')!.scrollHeight - m.clientHeight,
                ),
              ),
          )
          .toBeLessThanOrEqual(1);
      for (const width of [1280, 900, 768, 1920]) {
        await page.setViewportSize({ width, height: 800 });
        await expect
          .poll(
            () => page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
            { message: `${view} scrolls sideways at ${width} px` },
          )
          .toBeLessThanOrEqual(0);
        await expect
          .poll(() => page.getByRole('main').evaluate((m) => m.scrollWidth - m.clientWidth), {
            message: `${view} is wider than its place at ${width} px`,
          })
          .toBeLessThanOrEqual(1);
        // Columns scroll downwards; one that could be scrolled sideways hides something.
        await expect
          .poll(
            () =>
              page
                .getByRole('main')
                .evaluate((m) =>
                  Math.max(0, ...[...m.querySelectorAll('.overflow-y-auto')].map((c) => c.scrollWidth - c.clientWidth)),
                ),
            { message: `a column of ${view} is cut off at ${width} px` },
          )
          .toBeLessThanOrEqual(1);
      }
    }
  });

  test('units shown are the reader’s choice', async ({ page }) => {
    await openDemo(page, 'Shop');
    await page.getByRole('tab', { name: 'Units' }).click();
    await page.getByRole('combobox', { name: 'Torque', exact: true }).selectOption('kgf·cm');
    await page.getByRole('link', { name: /^Brief/ }).click();
    await expect(page.locator('[data-limit="torque"]')).toContainText('57.03 kgf·cm');
    await saved(page);
    await page.reload();
    await expect(page.locator('[data-limit="torque"]')).toContainText('57.03 kgf·cm');
  });

  test('sentences follow it too: notes of parts, mends, and what is refused', async ({ page }) => {
    await openDemo(page, 'Shop');
    await page.getByRole('tab', { name: 'Units' }).click();
    await page.getByRole('combobox', { name: 'Length', exact: true }).selectOption('in');
    await page.getByRole('link', { name: /^Make/ }).click();
    const note = page.getByText(/\d in wide/).first();
    await expect(note).toBeVisible();
    await expect(page.getByText(/\d mm wide/)).toHaveCount(0);
    await page.getByRole('link', { name: /^Stage/ }).click();
    await type(page, 'Belt width', '90 in');
    await expect(page.getByRole('alert')).toContainText('must be at most 7.874 in');
    await type(page, 'Belt width', '0.2 in');
    await expect(
      page.getByRole('button', { name: /^(Belt width|Tension|Wall) .* in$|^Tension/ }).first(),
    ).toBeVisible();
  });
});
