import { openDemo, test } from './fixture.ts';

test('pictures of the main views', async ({ page }) => {
  test.setTimeout(120_000);
  const shoot = async (name: string) => {
    await page.waitForLoadState('networkidle');
    await page.waitForTimeout(700);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
  };
  const go = (view: string) => page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: new RegExp(`^${view}`) }).click();
  await openDemo(page);
  await shoot('brief');
  await go('Line');
  await shoot('line');
  await page.getByRole('link', { name: /2 Belt/ }).first().click();
  await shoot('stage');
  await page.locator('[data-limit="stiffness"] [data-figure]').click();
  await page.getByRole('dialog').getByRole('listitem').first().waitFor();
  await shoot('working');
  await page.keyboard.press('Escape');
  await go('Make');
  await shoot('make');
  await go('Bench');
  await page.getByRole('button', { name: /Play at a lever/ }).first().click();
  await shoot('bench');
  await go('Review');
  await shoot('review');
  await go('Shop');
  await shoot('shop');
  await page.getByRole('link', { name: /1 Belt/ }).first().click();
  await page.keyboard.press('t');
  await shoot('stage-dark');
  await page.keyboard.press('t');
  await page.getByRole('link', { name: 'Gristmill' }).click();
  await shoot('joints');
});
