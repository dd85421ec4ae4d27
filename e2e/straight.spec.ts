import { expect, expectAccessible, openDemo, saved, test, type } from './fixture.ts';

const view = (page: import('@playwright/test').Page, name: RegExp) =>
  page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name }).click();

test.describe('an axis that runs straight', () => {
  test('is asked, expected and found in newtons and micrometres from the brief to the review', async ({ page }) => {
    await openDemo(page, 'Brief', 'Reed lift');
    const tally = page.getByRole('complementary', { name: 'Tally' });
    const force = tally.locator('[data-limit=torque]');
    // 1.6 kg straight up, accelerated with 0.6 m/s², and a quarter more for shocks: 1.6·(9.80665 + 0.6)·1.25 = 20.81 N.
    await expect(force).toContainText('Force, lifting');
    await expect(force).toContainText('≥ 20.81 N');
    await expect(tally.locator('[data-limit=play]')).toContainText('≤ 150 µm');
    await expect(page.getByRole('navigation', { name: 'Drive line' })).toContainText('needs 20.8 N');
    await expect(page.getByRole('img', { name: 'Force at the joint over time' })).toBeVisible();
    await expectAccessible(page);
    // Another pulley in the brief leaves what is asked of the carriage.
    await type(page, 'Pitch radius', '20 mm');
    await expect(tally.locator('[data-limit=play]')).toContainText('≤ 150 µm');
    await expect(force).toContainText('≥ 20.81 N');
    await type(page, 'Play limit', '40 µm');
    await expect(tally.locator('[data-limit=play]')).toHaveAttribute('data-state', 'fails');
    await view(page, /^Line/);
    await expect(page.getByRole('columnheader', { name: 'play µm' })).toBeVisible();
    // Its working counts about the brief's arm, and says so.
    await force.getByRole('button', { name: /open working$/ }).click();
    const working = page.getByRole('dialog', { name: 'Force, lifting' });
    await expect(working).toContainText(/\d+ N \(.*about the brief’s arm of 20 mm: .* N·m/s);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('img', { name: /^Force and speed at the output/ })).toBeVisible();
    await expectAccessible(page);
    await page
      .getByRole('navigation', { name: 'Sheets of the line' })
      .getByRole('link', { name: 'Find lines' })
      .click();
    await expect(page.getByRole('textbox', { name: 'play, at most' })).toHaveValue('40 µm');
    await expectAccessible(page);
    await view(page, /^Review/);
    await expect(page.locator('[data-review=torque]')).toContainText('Force, lifting');
    await expect(page.locator('[data-review=stiffness]')).toContainText('N/mm');
  });

  test('a screw is drawn, turned, sized by the travel of a turn, and refused before another stage', async ({
    page,
  }) => {
    await openDemo(page, 'Stage', 'Reed lift');
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Stage 1, screw');
    const figures = page.getByRole('region', { name: 'Figures of the stage' });
    await expect(figures.getByRole('row', { name: /^Lead Lead 2 mm/ })).toBeVisible();
    await expectAccessible(page);
    await type(page, 'Travel of a turn', '8 mm');
    await page.getByRole('button', { name: 'Move all along' }).click();
    await expect(figures.getByRole('row', { name: /^Lead Lead 8 mm/ })).toBeVisible();
    // With four times the lead it is turned back by what hangs on it.
    await expect(page.getByRole('complementary', { name: 'Tally' }).locator('[data-limit=turnBack]')).not.toContainText(
      'self-locking',
    );
    await page.keyboard.press('Control+z');
    await expect(figures.getByRole('row', { name: /^Lead Lead 2 mm/ })).toBeVisible();
    await view(page, /^Line/);
    await page.getByRole('button', { name: 'Stage 1 towards the output' }).waitFor();
    await page.getByRole('button', { name: 'Add stage' }).click();
    await page.getByRole('menuitem', { name: /^Belt/ }).click();
    await page.getByRole('button', { name: 'Add the stage' }).click();
    await saved(page);
    await expect(page.getByRole('main').getByRole('alert').first()).toContainText('runs straight');
  });

  test('a cable behind a belt is drawn with the pull of both its runs', async ({ page }) => {
    await openDemo(page, 'Line', 'Neck lift');
    await page.getByRole('combobox', { name: 'variant' }).selectOption('E');
    await page
      .getByRole('navigation', { name: 'Drive line' })
      .getByRole('link', { name: /2 Cable/ })
      .click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Stage 2, cable');
    await expect(page.getByRole('region', { name: 'Figures of the stage' })).toContainText('Pull of the tight run');
    await expectAccessible(page);
  });
});
