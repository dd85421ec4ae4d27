import { expect, expectAccessible, openDemo, test } from './fixture.ts';

test('a planetary stage is shown piece by piece, drawn apart and cut, and goes round by keys', async ({ page }) => {
  test.setTimeout(120_000);
  await openDemo(page, 'Make', 'Wing root');
  await page.getByRole('button', { name: 'In space' }).first().click();
  const canvas = page.getByRole('dialog').getByRole('img');
  // Two sets of sun, three planets with their pins and a plate; one ring, one plate at the output.
  await expect(canvas).toHaveAttribute('data-pieces', '19', { timeout: 60_000 });
  const look = () => canvas.screenshot().then((b) => b.toString('base64'));
  const whole = await look();
  await page.getByLabel('Drawn apart').fill('0.8');
  await expect.poll(look).not.toBe(whole);
  const apart = await look();
  await page.getByLabel('Cut', { exact: true }).selectOption('y');
  await expect.poll(look).not.toBe(apart);
  const cut = await look();
  await canvas.focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(look).not.toBe(cut);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('without WebGL the reason is said and nothing breaks', async ({ page }) => {
  await page.addInitScript(() => {
    const plain = HTMLCanvasElement.prototype.getContext;
    HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string, ...rest: unknown[]) {
      return kind.startsWith('webgl') ? null : (plain as (...a: unknown[]) => unknown).call(this, kind, ...rest);
    } as typeof plain;
  });
  await openDemo(page, 'Make', 'Wing root');
  await page.getByRole('button', { name: 'In space' }).first().click();
  await expect(page.getByRole('alert')).toContainText('does not offer WebGL', { timeout: 30_000 });
});
