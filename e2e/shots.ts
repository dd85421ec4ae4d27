import { openDemo, test } from './fixture.ts';

test('pictures of the main views', async ({ page }) => {
  test.setTimeout(300_000);
  const shoot = async (name: string) => {
    await page.waitForLoadState('networkidle');
    await page.waitForTimeout(700);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
  };
  const go = (view: string) =>
    page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: new RegExp(`^${view}`) })
      .click();
  await page.goto('/');
  await page.locator('[data-demo="Tide dial"]', { hasText: /near|missed|met/ }).waitFor();
  await shoot('welcome');
  await openDemo(page);
  await shoot('brief');
  await go('Line');
  await shoot('line');
  await go('Make');
  await shoot('make');
  await go('Bench');
  await page
    .getByRole('button', { name: /^Transmission error/ })
    .first()
    .click();
  await page.locator('.recharts-line').first().waitFor();
  await shoot('bench');
  await go('Review');
  await shoot('review');
  await go('Shop');
  await shoot('shop');
  const open = async (joint: string) => {
    await page.getByRole('link', { name: 'Gristmill' }).click();
    await page.getByRole('link', { name: joint }).click();
    await page.getByRole('navigation', { name: 'Views' }).waitFor();
  };
  const sheet = async (name: string) => {
    await go('Line');
    await page.getByRole('navigation', { name: 'Sheets of the line' }).getByRole('link', { name }).click();
  };
  await go('Bench');
  await page.getByRole('button', { name: 'Live rig' }).click();
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await page.waitForTimeout(7000);
  await shoot('rig');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await open('Wing root');
  await page
    .getByRole('link', { name: /1 Planetary/ })
    .first()
    .click();
  await shoot('stage');
  await go('Make');
  await page.getByRole('link', { name: 'Fit', exact: true }).click();
  await page.locator('[data-lens=ready]').waitFor();
  await page.getByText('Balanced at').waitFor();
  await page.waitForTimeout(800);
  await shoot('fit');
  await page.getByRole('link', { name: 'Section' }).click();
  await page.locator('svg[data-regions]').waitFor();
  await page.waitForTimeout(1500);
  await shoot('section');
  await page.getByRole('link', { name: 'In space' }).click();
  await page.locator('canvas:not([data-pieces="0"])').waitFor({ timeout: 60_000 });
  await page.getByLabel('Drawn apart').fill('0.8');
  await page.getByRole('button', { name: 'Fit' }).click();
  await page.waitForTimeout(2500);
  await shoot('space');
  await page.getByRole('link', { name: 'Going together' }).click();
  await page.locator('[data-step]').nth(15).getByRole('button').click();
  await page.waitForTimeout(800);
  await shoot('together');
  await page.getByRole('link', { name: 'Schedule' }).click();
  await page.getByRole('button', { name: 'Plan build B-2' }).click();
  await page.getByText('All done on').waitFor();
  await page.waitForTimeout(800);
  await shoot('schedule');
  await sheet('Ratio desk');
  await shoot('ratio-desk');
  await sheet('Find lines');
  await page.getByText('lines out of').waitFor();
  await shoot('find');
  await sheet('Compare');
  await shoot('compare');
  await page.getByRole('link', { name: 'Gristmill' }).click();
  await shoot('joints');
  await page.getByRole('button', { name: 'New joint' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Lamp arm');
  await page.getByText(/\d+ found, \d shown/).waitFor({ timeout: 120_000 });
  await shoot('start');
});
