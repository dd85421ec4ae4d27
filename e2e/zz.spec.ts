import { openDemo, test, type } from './fixture.ts';
test('x', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await openDemo(page, 'stage', 'Reed lift');
  await page.getByLabel('variant').selectOption({ label: 'B' });
  await page.getByRole('combobox', { name: 'Pinion' }).first().selectOption({ label: 'Rollers' });
  await type(page, 'Teeth or rollers', '12');
  await type(page, 'Module', '2 mm');
  await type(page, 'Roller', '3.2 mm');
  await page.waitForTimeout(800);
  await page.screenshot({ path: '/tmp/z1.png' });
  await page.getByRole('button', { name: /Force that lifts the rollers/ }).first().click();
  await page.waitForTimeout(500);
  await page.screenshot({ path: '/tmp/z2.png' });
});
