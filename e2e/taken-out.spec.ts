import { blankJoint, expect, expectAccessible, openDemo, saved, settled, test, type } from './fixture.ts';

type Page = import('@playwright/test').Page;
const view = (page: Page, name: RegExp) =>
  page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name }).click();
const figures = (page: Page) => page.getByRole('region', { name: 'Figures of the stage' });
const checks = (page: Page) => page.getByRole('region', { name: 'Checks of the stage' });
const play = (page: Page) => page.getByRole('complementary', { name: 'Tally' }).locator('[data-limit=play]');

test.describe('play taken out', () => {
  test('of planets: by halves or in pairs, with what opens it again, its mend and its parts', async ({ page }) => {
    await openDemo(page, 'Stage', 'Wing root');
    await settled(page);
    await page.getByRole('combobox', { name: 'Variant' }).selectOption('B');
    const way = page.getByRole('combobox', { name: 'Play taken out' });
    await expect(page.getByRole('textbox', { name: 'Spring force' })).toHaveCount(0);
    await way.selectOption('Pairs of planets pushed apart');
    // Three planets have no pairs; the mend makes them two.
    await expect(checks(page)).toContainText('an odd one out would push the carrier off its axis');
    await checks(page).getByRole('button', { name: '2 planets' }).click();
    await expect(checks(page).locator('[data-check=pairs]')).not.toHaveAttribute('data-state', 'fails');
    await expect(play(page)).toContainText('met0′');
    await page.keyboard.press('Control+z');
    await way.selectOption('Split planets, sprung halves');
    await expect(figures(page).getByRole('row', { name: /^Torque that opens the play again/ })).toBeVisible();
    await type(page, 'Spring force', '1 N');
    const opens = checks(page).locator('[data-check=opens]');
    await expect(opens).toContainText('the load overcomes the springs');
    await opens.getByRole('button', { name: /^Spring force \d+/ }).click();
    await expect(opens).not.toHaveAttribute('data-state', 'fails');
    await expectAccessible(page);
    // A tube through both sets cannot be split, in words, and the way out is offered.
    await way.selectOption('Split ring, sprung halves');
    const refused = page.getByRole('main').getByRole('alert').first();
    await expect(refused).toContainText('A ring tube through several sets cannot be split');
    await refused.getByRole('button', { name: 'Split planets' }).click();
    await expect(way).toHaveValue('planets');
    await saved(page);
    await view(page, /^Make/);
    const parts = page.getByRole('region', { name: 'Parts of stage 1' });
    await expect(parts).toContainText('Planet, set 1, held half');
    await expect(parts).toContainText('Planet, set 1, sprung half');
    await expect(parts).toContainText('Springs that take the play out');
  });

  test('by two motors on one output: what they hold, cost and need', async ({ page }) => {
    await openDemo(page, 'Line', 'Body yaw');
    const sheets = page.getByRole('navigation', { name: 'Sheets of the line' });
    await sheets.getByRole('link', { name: 'Ratio desk' }).click();
    const pair = page.getByRole('region', { name: 'Two motors on one output' });
    await expect(pair.locator('[data-pair=pairOpens]')).toContainText('N·m');
    await type(page, 'Offset of each', '0.05 N·m');
    await expect(pair).toContainText('Stays without play under the peak');
    await pair.getByRole('button', { name: /^Offset / }).click();
    await expect(pair).not.toContainText('Stays without play under the peak');
    await pair
      .locator('[data-pair=pairOpens]')
      .getByRole('button', { name: /open working$/ })
      .click();
    await expect(page.getByRole('dialog', { name: 'No play up to' })).toContainText('2·T_B');
    await page.keyboard.press('Escape');
    await expectAccessible(page);
  });

  test('by two motors along a straight axis, whose shares and trials are told along it as well', async ({ page }) => {
    await openDemo(page, 'Line', 'Reed lift');
    const sheets = page.getByRole('navigation', { name: 'Sheets of the line' });
    const pair = page.getByRole('region', { name: 'Two motors on one output' });
    await sheets.getByRole('link', { name: 'Ratio desk' }).click();
    await expect(page.getByRole('main')).toContainText('ratios are about the brief’s arm of 12.7 mm');
    await expect(pair.locator('[data-pair=pairOpens]')).toContainText(/\d N/);
    // A screw that holds cannot be dragged along by the other.
    await expect(pair).toContainText('The dragged line turns back');
    await sheets.getByRole('link', { name: 'Shares' }).click();
    await expect(page.locator('[data-waterfall=loss]')).toContainText('Force lost at the peak');
    await sheets.getByRole('link', { name: 'What if' }).click();
    await expect(page.locator('[data-what-if=play]')).toContainText('≤ 150 µm');
  });

  test('of a chain nothing is, but it drives three sprockets, each its own way', async ({ page }) => {
    await page.goto('/');
    await blankJoint(page);
    await view(page, /^Line/);
    await page.getByRole('button', { name: 'Add stage' }).click();
    await page.getByRole('menuitem', { name: /^Chain/ }).click();
    await page.getByRole('button', { name: 'Add the stage' }).click();
    await expect(page.getByRole('form', { name: 'New stage' })).toHaveCount(0);
    await view(page, /^Stage/);
    await type(page, 'Links', '120');
    await page.getByRole('combobox', { name: 'Branch', exact: true }).selectOption('Inside the chain');
    await page.getByRole('combobox', { name: 'Second branch' }).selectOption('On its outside');
    await expect(figures(page).getByRole('row', { name: /^Ratio of the branch/ })).toBeVisible();
    await expect(figures(page).getByRole('row', { name: /^Ratio of the second branch/ })).toContainText('−');
    await page.getByRole('combobox', { name: 'Idler', exact: true }).selectOption('On its outside');
    await page.getByRole('combobox', { name: 'Second idler' }).selectOption('On its outside');
    await expect(page.locator('[data-layer="teeth"] path')).not.toHaveCount(0);
    await expectAccessible(page);
  });
});
