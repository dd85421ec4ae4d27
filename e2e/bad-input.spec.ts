import { expect, openDemo, test } from './fixture.ts';

const BAD: [string, RegExp][] = [
  ['', /Nothing is typed/],
  ['abc', /not a number/],
  ['1e999', /finite/],
  ['5 parsecs', /not a unit/],
  ['1/0', /finite/],
  ['-1e7', /too little|must be at least/],
  ['1e12', /too much|must be at most|too large/],
];

const noNonsense = async (page: import('@playwright/test').Page) => {
  const text = await page.locator('body').innerText();
  expect(text).not.toMatch(/NaN|Infinity|undefined|\[object/);
};

test('every kind of field refuses nonsense in words, keeps what was typed and restores with Escape', async ({
  page,
}) => {
  await openDemo(page);
  const fields: [string, string, string][] = [
    ['Brief', 'Mass carried', '3 mm'],
    ['Brief', 'Speed', '3 kg'],
    ['Line', 'Holding torque', '2 kg'],
    ['Line', 'Supply voltage', '2 A'],
    ['Stage', 'Belt width', '2 N'],
    ['Stage', 'Driving pulley', '2 mm'],
    ['Stage', 'Installation tension', '2 kg'],
  ];
  let at = 'Brief';
  for (const [view, label, wrongUnit] of fields) {
    if (view !== at)
      await page
        .getByRole('navigation', { name: 'Views' })
        .getByRole('link', { name: new RegExp(`^${view}`) })
        .click();
    at = view;
    const field = page.getByRole('textbox', { name: label, exact: true });
    const before = await field.inputValue();
    for (const [typed, why] of [...BAD, [wrongUnit, /is a unit of|unit of mass/] as [string, RegExp]]) {
      await field.fill(typed);
      await field.press('Enter');
      const alert = page.locator('main').getByRole('alert').filter({ hasText: why });
      await expect(alert, `${label} “${typed}”`).toBeVisible();
      await expect(field).toHaveValue(typed);
      await expect(field).toHaveAttribute('aria-invalid', 'true');
      await field.press('Escape');
      await expect(field).toHaveValue(before);
      await expect(alert).toHaveCount(0);
    }
  }
  await noNonsense(page);
});

test('counts that cannot be are explained with the nearest mend, and the mend works', async ({ page }) => {
  await openDemo(page, 'Stage');
  const teeth = page.getByRole('textbox', { name: 'Driven pulley', exact: true });
  await teeth.fill('150');
  await teeth.press('Enter');
  await expect(page.locator('main').getByRole('alert')).toContainText('The belt is too short for its pulleys.');
  await expect(page.locator('[data-limit="torque"]')).toContainText('not known');
  await noNonsense(page);
  for (const view of ['Line', 'Make', 'Review', 'Bench', 'Stage']) {
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: new RegExp(`^${view}`) })
      .click();
    await expect(page.getByRole('main').getByRole('heading', { level: 1 })).toBeVisible();
    await noNonsense(page);
  }
  await page
    .getByRole('alert')
    .getByRole('button', { name: /Belt with \d+ teeth/ })
    .click();
  await expect(page.locator('[data-drawing] path').first()).toBeVisible();
  await expect(page.locator('main').getByRole('alert')).toHaveCount(0);
});

test('a failing check says figure, limit, why, and its mend mends it', async ({ page }) => {
  await openDemo(page);
  await page
    .getByRole('link', { name: /2 Belt/ })
    .first()
    .click();
  // Its idler wraps the small pulley by a tooth more than six.
  await page.getByRole('combobox', { name: 'Idler', exact: true }).selectOption({ label: 'None' });
  const mesh = page.locator('[data-check="mesh"]');
  await expect(mesh).toHaveAttribute('data-state', 'fails');
  await expect(mesh).toContainText(/5\.92.*≥ 6.*load share/s);
  await mesh.getByRole('button', { name: 'Belt with 89 teeth' }).click();
  await expect(mesh).toHaveAttribute('data-state', 'holds');
  await page.getByRole('button', { name: 'Take Belt with 96 teeth' }).click();
  await expect(page.getByRole('combobox', { name: 'Belt teeth' })).toHaveValue('96');
});

test('the sketch’s load is dragged and nudged', async ({ page }) => {
  await openDemo(page);
  const length = page.getByRole('textbox', { name: 'Axis to load' });
  const grip = page.getByRole('slider', { name: 'Arm length' });
  const box = (await grip.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x - 60, box.y + 20, { steps: 6 });
  await page.mouse.up();
  await expect(length).not.toHaveValue('320 mm');
  const dragged = Number.parseFloat(await length.inputValue());
  expect(dragged).toBeLessThan(300);
  await grip.press('ArrowRight');
  await expect.poll(async () => Number.parseFloat(await length.inputValue())).toBeCloseTo(dragged + 1, 3);
  // The whole drag is one step back, the nudge another.
  await page.getByRole('heading', { name: /Arm against gravity/ }).click();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(length).toHaveValue('320 mm');
});

test('arrows nudge by a step, ten with Shift, a tenth with Alt', async ({ page }) => {
  await openDemo(page);
  const load = page.getByRole('textbox', { name: 'Mass carried' });
  await load.press('ArrowUp');
  await expect(load).toHaveValue('1.2 kg');
  await load.press('Shift+ArrowDown');
  await expect(load).toHaveValue('0.2 kg');
  await load.press('Alt+ArrowUp');
  await expect(load).toHaveValue('0.21 kg');
});

test('bench readings in the wrong unit are asked about, struck out with a reason, and exported', async ({ page }) => {
  await openDemo(page, 'Bench');
  await page.getByRole('button', { name: 'New test' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Torque ladder/ })
    .click();
  const mass = page.getByRole('textbox', { name: 'Mass hung' });
  await mass.fill('20 N');
  await page.getByRole('button', { name: 'Add rung' }).click();
  await expect(page.getByRole('alert')).toContainText(/unit of force.*mass/s);
  // 4.4 kg was weighed, and its weight in newtons was typed as the mass.
  await mass.fill('43.2 kg');
  await page.getByRole('button', { name: 'Add rung' }).click();
  await expect(page.locator('[data-slip="g"]')).toContainText('Did you mean');
  await page.getByRole('button', { name: 'Strike out' }).click();
  await page.getByRole('textbox', { name: 'Why it is struck out' }).fill('newtons typed as kilograms');
  await page.getByRole('button', { name: 'Strike', exact: true }).click();
  await expect(page.getByRole('row').filter({ hasText: '43.2 kg' })).toContainText('newtons typed as kilograms');
  await expect(page.locator('[data-slip]')).toHaveCount(0);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/\.csv$/);
  await page.getByRole('button', { name: 'Let it count' }).click();
  await expect(page.locator('[data-slip="g"]')).toBeVisible();
});

test('the shop’s factors move the predictions, and can be reset', async ({ page }) => {
  await openDemo(page, 'Shop');
  await page.getByRole('tab', { name: 'Factors' }).click();
  const tally = page.locator('[data-limit="stiffness"] [data-figure]');
  const before = await tally.innerText();
  const low = page.getByRole('textbox', { name: /^AT5.*axial stiffness.*likely/ });
  await low.fill('1 N/mm');
  await low.press('Enter');
  await expect(page.getByRole('alert')).toContainText('out of order');
  await low.press('Escape');
  await low.fill('3000');
  await low.press('Enter');
  // The joint keeps what it was computed with, and says that the shop has moved on.
  const notice = page.locator('[data-moved]');
  await expect(notice).toContainText(/AT5.*axial stiffness/);
  await expect(tally).toHaveText(before);
  await notice.getByRole('button', { name: 'Take the shop’s values' }).click();
  await expect(tally).not.toHaveText(before);
  await expect(notice).toHaveCount(0);
  await page.getByRole('button', { name: /^Reset AT5/ }).click();
  await notice.getByRole('button', { name: 'Take the shop’s values' }).click();
  await expect(tally).toHaveText(before);
});
