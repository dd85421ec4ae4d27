import { readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { blankJoint, expect, expectAccessible, openDemo, saved, test, type, settled } from './fixture.ts';

type Page = import('@playwright/test').Page;
const asks = (page: Page, id: string) =>
  page.getByRole('group', { name: 'What the load asks' }).locator(`[data-figure="case-${id}"]`);
const addCase = (page: Page, name: string) =>
  page.getByRole('combobox', { name: 'Add a load case' }).selectOption({ label: name });
const sheet = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Sheets of the line' }).getByRole('link', { name }).click();
const limit = (page: Page, id: string) => page.locator(`aside [data-limit="${id}"]`);

test.describe('load patterns', () => {
  test('arm: an S-curve takes longer than a trapezoid, and by time it takes that time', async ({ page }) => {
    await openDemo(page);
    const before = Number.parseFloat(await asks(page, 'move').innerText());
    await page.getByRole('combobox', { name: 'Profile' }).selectOption('s-curve');
    await expect.poll(async () => Number.parseFloat(await asks(page, 'move').innerText())).toBeGreaterThan(before);
    await page.getByRole('combobox', { name: 'Given' }).selectOption('time');
    await type(page, 'One move takes', '0.8 s');
    await expect(asks(page, 'move')).toHaveText('0.8 s');
    const inertia = await asks(page, 'inertia').innerText();
    await type(page, 'Own inertia', '100 kg·cm²');
    await expect(asks(page, 'inertia')).not.toHaveText(inertia);
    await page.getByRole('group', { name: 'Plot' }).getByRole('button', { name: 'speed over time' }).click();
    await expect(page.getByRole('img', { name: 'Speed at the joint over time' })).toBeVisible();
    await asks(page, 'equivalent').click();
    await expect(page.getByRole('dialog')).toContainText('10/3');
  });

  test('two-segment leg: worked torque at the knee, a foot moved ahead loads the hip, and what cannot be is refused', async ({
    page,
  }) => {
    await openDemo(page);
    await addCase(page, 'Two-segment leg');
    await type(page, 'Mass that stands', '10 kg');
    await type(page, 'Share on this leg', '50 %');
    await type(page, 'Dynamic factor', '2');
    await type(page, 'Hip to knee', '200 mm');
    await type(page, 'Knee to foot', '200 mm');
    await type(page, 'Knee, crouched', '60°');
    // Equal segments at 60°: the knee stands 200·sin 60° = 173.2 mm out; 98.07 N on it.
    await expect(asks(page, 'knee-crouch')).toHaveText('16.99 N·m');
    await expect(asks(page, 'hip-crouch')).toHaveText('0 N·m');
    const foot = page.locator('[data-grip="foot"]');
    await foot.focus();
    for (let i = 0; i < 3; i++) await foot.press('Shift+ArrowRight');
    await expect(page.getByRole('textbox', { name: 'Foot ahead of hip' })).toHaveValue('30 mm');
    await expect(asks(page, 'hip-crouch')).toHaveText('2.942 N·m');
    const ground = page.locator('[data-grip="ground"]');
    const box = (await ground.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, box.y - 20, { steps: 4 });
    await page.mouse.up();
    await expect(page.getByRole('textbox', { name: 'Knee, crouched' })).not.toHaveValue('60°');
    await type(page, 'Lands from', '150 mm');
    await page.getByRole('button', { name: 'Land', exact: true }).click();
    await expect(asks(page, 'knee-land')).toContainText('N·m');
    const travel = page.getByRole('textbox', { name: 'Gives by' });
    await travel.fill('600 mm');
    await travel.press('Enter');
    await expect(page.getByRole('alert')).toContainText(/cannot give that far.*shorter landing travel/);
    await expect(travel).toHaveValue('600 mm');
  });

  test('turning mass: J·α, friction and unbalance come to the worked peak and RMS', async ({ page }) => {
    await openDemo(page);
    await addCase(page, 'Turning mass');
    for (const [label, text] of [
      ['Inertia', '0.05 kg·m²'],
      ['Friction of the axis', '0.3 N·m'],
      ['Unbalance', '0.2 N·m'],
      ['Shock factor', '1'],
      ['One move', '3 rad'],
      ['Speed', '2 rad/s'],
      ['Acceleration', '4 rad/s²'],
      ['Rest between', '1 s'],
    ] as const)
      await type(page, label, text);
    await expect(asks(page, 'peak')).toHaveText('0.7 N·m');
    await expect(asks(page, 'move')).toHaveText('2 s');
    await expect(asks(page, 'rms')).toHaveText('0.4397 N·m');
    const grip = page.locator('[data-grip="angle"]');
    await grip.focus();
    await grip.press('ArrowUp');
    await expect(page.getByRole('textbox', { name: 'One move' })).not.toHaveValue('171.89°');
  });

  test('straight axis: force times pitch radius, lead over 2π, and a slope that can be dragged', async ({ page }) => {
    await openDemo(page);
    await addCase(page, 'Straight axis');
    for (const [label, text] of [
      ['Moving mass', '4 kg'],
      ['Guide friction', '0.1'],
      ['Slope', '30°'],
      ['Process force', '15 N'],
      ['Pitch radius', '20 mm'],
      ['Shock factor', '1'],
      ['Stroke', '1 m'],
      ['Speed', '0.5 m/s'],
      ['Acceleration', '1 m/s²'],
    ] as const)
      await type(page, label, text);
    // 4 + 19.6133 + 3.3971 + 15 N at 20 mm.
    await expect(asks(page, 'force')).toHaveText('42.01 N');
    await expect(asks(page, 'peak')).toHaveText('0.8402 N·m');
    await expect(asks(page, 'speed')).toHaveText('238.7 rpm');
    await page.getByRole('combobox', { name: 'Driven by' }).selectOption('screw');
    await type(page, 'Lead', '10 mm');
    await expect(asks(page, 'peak')).toHaveText('0.06686 N·m');
    const slope = page.locator('[data-grip="slope"]');
    await slope.focus();
    await slope.press('Shift+ArrowUp');
    await expect(page.getByRole('textbox', { name: 'Slope' })).toHaveValue('40°');
  });

  test('own points: pasted with a heading in other units, read from a file, refused by row', async ({ page }) => {
    await openDemo(page);
    await addCase(page, 'Own points');
    await page.getByRole('button', { name: 'Paste or read CSV' }).click();
    const box = page.getByRole('textbox', { name: 'Paste torque, speed, seconds' });
    await box.fill('1,2\n3,4');
    await page.getByRole('button', { name: 'Take these' }).click();
    await expect(page.getByRole('alert')).toContainText('Row 1 has no seconds');
    await expect(box).toHaveValue('1,2\n3,4');
    await box.fill('time (ms);torque (kgf·cm);speed (rpm)\n500;10;60\n500;-20;0');
    await page.getByRole('button', { name: 'Take these' }).click();
    await expect(page.getByRole('textbox', { name: 'Point 1, torque' })).toHaveValue('0.98067 N·m');
    await expect(asks(page, 'peak')).toHaveText('1.961 N·m');
    await expect(asks(page, 'hold')).toHaveText('1.961 N·m');
    await expect(asks(page, 'rms')).toHaveText('1.551 N·m');
    const file = join(tmpdir(), 'gristmill-points.csv');
    writeFileSync(file, 'torque,speed,seconds\n3 N·m,2 rad/s,1\n');
    await page.getByRole('button', { name: 'Paste or read CSV' }).click();
    await page.getByLabel('Paste torque, speed, seconds: file').setInputFiles(file);
    await expect(box).toHaveValue(/3 N·m/);
    await page.getByRole('button', { name: 'Take these' }).click();
    await expect(asks(page, 'peak')).toHaveText('3 N·m');
    await type(page, 'Point 1, seconds', '0 s');
    await expect(page.getByRole('alert')).toContainText('No point lasts any time');
  });

  test('a new joint starts from any pattern, with a line that was found for it', async ({ page }) => {
    await page.goto('/');
    await page.getByRole('button', { name: 'New joint' }).first().click();
    const form = page.getByRole('form', { name: 'New joint' });
    await form.getByLabel('Name').fill('Pan table');
    await form.getByRole('combobox', { name: 'Load' }).selectOption({ label: 'Turning mass' });
    await expect(form).toContainText('Inertia to be sped up and stopped');
    await form.getByRole('combobox', { name: 'Stages, at most' }).selectOption('1');
    await form.getByRole('table', { name: 'Lines that could do it' }).waitFor({ timeout: 40_000 });
    await form.getByRole('button', { name: 'Make this joint' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Turning mass');
    await expect(limit(page, 'torque')).toHaveAttribute('data-state', /holds|near/);
    await expect(page.getByRole('navigation', { name: 'Drive line' }).getByRole('link', { name: /^1 / })).toBeVisible();
  });

  test('several cases: added, duplicated, renamed, removed, undone; the worst of each counts', async ({ page }) => {
    await openDemo(page);
    await addCase(page, 'Turning mass');
    const tabs = page.getByRole('tablist', { name: 'Load cases' }).getByRole('tab');
    await expect(tabs).toHaveCount(2);
    const asked = () => limit(page, 'torque').locator('.num').first().innerText();
    const before = await asked();
    await type(page, 'Unbalance', '20 N·m');
    await expect.poll(asked).not.toBe(before);
    await page.getByRole('button', { name: 'Duplicate', exact: true }).click();
    await expect(tabs).toHaveCount(3);
    await page.getByRole('button', { name: 'Remove this case' }).click();
    await expect(tabs).toHaveCount(2);
    await tabs.nth(1).click();
    await page.getByRole('button', { name: 'Remove this case' }).click();
    await expect.poll(asked).toBe(before);
    await page.keyboard.press('Control+z');
    await expect(tabs).toHaveCount(2);
    await saved(page);
    await page.reload();
    await expect(tabs).toHaveCount(2);
  });

  test('every demo joint opens with its brief and a line that sums', async ({ page }) => {
    await openDemo(page);
    for (const [name, cases] of [
      ['Neck lift', ['Raise the head', 'Beak on the ground']],
      ['Wing root', ['Wing beat, as recorded', 'Spread in one sweep']],
      ['Tide dial', ['Set the dial', 'Marker on its rack']],
    ] as const) {
      await page.getByRole('link', { name: 'Gristmill' }).click();
      await page.getByRole('link', { name }).click();
      await expect(limit(page, 'torque').locator('[data-figure]')).toContainText('N·m');
      for (const c of cases) {
        await page.getByRole('tab', { name: c }).click();
        await expect(asks(page, 'peak')).toContainText('N·m');
      }
    }
    await expect(limit(page, 'turnBack')).toContainText('self-locking: stage 1');
  });
});

test('limits flow to the tally: turn-back three ways, resolution, bore, length, life and a note on noise', async ({
  page,
}) => {
  await openDemo(page);
  const add = (name: string) => page.getByRole('combobox', { name: 'Add limit' }).selectOption({ label: name });
  for (const name of ['Resolution kept', 'Repeatability', 'Length', 'Hollow bore', 'Life', 'Noise']) await add(name);
  await expect(limit(page, 'resolution').locator('[data-figure]')).toContainText('′');
  await expect(limit(page, 'length').locator('[data-figure]')).toContainText('mm');
  await expect(limit(page, 'bore').locator('[data-figure]')).toContainText('mm');
  await expect(limit(page, 'life')).toContainText('nothing in the line has a life that is known');
  await type(page, 'Noise, in words', 'Quiet enough for a bird hide');
  await expect(limit(page, 'noise')).toContainText('Quiet enough for a bird hide');
  const back = page.getByRole('combobox', { name: 'Turn-back: must, must not or either' });
  await expect(limit(page, 'turnBack')).toHaveAttribute('data-state', 'holds');
  await back.selectOption('min');
  await expect(limit(page, 'turnBack')).toHaveAttribute('data-state', 'fails');
  await back.selectOption('either');
  await expect(limit(page, 'turnBack')).toContainText('either');
});

test('driver, supply and what bears the output: power that comes back has somewhere to go', async ({ page }) => {
  await openDemo(page, 'Line', 'Wing root');
  await page.getByRole('combobox', { name: 'Variant' }).selectOption('a');
  const check = (id: string) => page.locator(`[data-check="${id}"]`);
  await expect(check('regeneration')).toContainText('Supply stands what comes back');
  await check('regeneration')
    .getByRole('button', { name: /^Brake resistor for/ })
    .click();
  await expect(page.getByRole('textbox', { name: 'Brake resistor' })).not.toHaveValue('0 W');
  await expect(check('regeneration')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(check('regeneration')).toHaveCount(1);
  // A battery takes it back; a weaker bridge gives less, and says what it commands.
  await page.getByRole('combobox', { name: 'Supply', exact: true }).selectOption({ label: 'Battery, 22 V, 40 A' });
  await expect(check('regeneration')).toHaveCount(0);
  await expect(page.getByRole('textbox', { name: 'Supply voltage' })).toHaveValue('22 V');
  await page.getByRole('combobox', { name: 'Driver', exact: true }).selectOption({ label: 'Full bridge, 5 A' });
  await expect(page.getByRole('textbox', { name: 'Phase current limit' })).toHaveValue('5 A');
  await expect(page.getByText('Commands speed, not torque.')).toBeVisible();
  // Another voltage is no longer that battery.
  await type(page, 'Supply voltage', '60 V');
  await expect(page.getByRole('combobox', { name: 'Supply', exact: true })).toHaveValue('');
  await check('driver-voltage').waitFor();
  // The output on a race of few balls, filled as the check asks for.
  await page.getByRole('combobox', { name: 'Borne by' }).selectOption('race');
  await type(page, 'Balls', '3');
  await type(page, 'Side force', '200 N');
  await expect(check('bearing')).toContainText('Race of the output');
  // What was said in passing fades, and is looked at when it has.
  await expect(page.locator('[data-sonner-toast]')).toHaveCount(0, { timeout: 15_000 });
  await expectAccessible(page);
});

test.describe('motors', () => {
  test('brushed and servo motors, their plots and points', async ({ page }) => {
    await openDemo(page, 'Line', 'Wing root');
    await sheet(page, 'Motor');
    await expect(
      page
        .getByRole('img', { name: /Torque of the motor over its speed/ })
        .locator('path.recharts-curve')
        .first(),
    ).toBeVisible();
    await page.getByRole('group', { name: 'Plot' }).getByRole('button', { name: 'efficiency' }).click();
    await expect(page.getByRole('img', { name: /Efficiency of the motor/ })).toBeVisible();
    const rows = page.getByRole('region', { name: 'Operating points' }).locator('tbody tr');
    await expect(rows.first()).toContainText('×');
    await rows.first().getByRole('button').click();
    await expect(page.getByRole('dialog')).toContainText('from the output back');
    await page.keyboard.press('Escape');
    await type(page, 'Winding at', '100 °C');
    await page.getByRole('combobox', { name: 'From the shop' }).selectOption('sv60-400');
    await expect(page.getByRole('textbox', { name: 'Rated torque', exact: true })).toHaveValue('1.27 N·m');
    await expect(rows.first()).toContainText('peak torque');
  });

  test('a data sheet’s curve is pasted, refused where damaged, and refuses speeds beyond its end', async ({ page }) => {
    await openDemo(page, 'Line');
    await sheet(page, 'Motor');
    await page.getByRole('button', { name: 'Curve from a data sheet' }).click();
    const box = page.getByRole('textbox', { name: 'Paste speed and torque, for moments' });
    await box.fill('speed (rpm), torque (N·m)\n0, 0.5\n0, 0.4');
    await page.getByRole('button', { name: 'Take these' }).click();
    await expect(page.getByRole('alert')).toContainText('Two points share a speed');
    await box.fill('speed (rpm), torque (N·m)\n0, 0.5\n300, 0.45\n900, 0.1');
    await page.getByRole('button', { name: 'Take these' }).click();
    await expect(page.getByRole('button', { name: 'Curve of 3 points: replace' })).toBeVisible();
    await expect(page.getByRole('region', { name: 'Operating points' }).locator('tbody tr').first()).toContainText(
      'data sheet',
    );
    await page.getByRole('link', { name: /^Brief/ }).click();
    await type(page, 'Speed', '100 rpm');
    await type(page, 'Acceleration', '200 rad/s²');
    await page.getByRole('link', { name: /^Line/ }).click();
    await expect(page.getByRole('alert').first()).toContainText(/curve ends at 900 rpm.*less ratio/s);
    await sheet(page, 'Motor');
    await page.getByRole('button', { name: 'Back to the constants' }).click();
    await expect(page.getByRole('region', { name: 'Operating points' }).locator('tbody tr').first()).toContainText('×');
  });
});

test.describe('the whole line', () => {
  test('checks of the line are mended by one press', async ({ page }) => {
    await openDemo(page, 'Line');
    await page.getByRole('combobox', { name: 'Motor mount' }).selectOption({ label: 'PLA, printed' });
    const mount = page.locator('[data-check="mount"]');
    await expect(mount).toHaveAttribute('data-state', 'fails');
    await mount.getByRole('button').last().click();
    await expect(page.locator('[data-check="mount"][data-state="fails"]')).toHaveCount(0);
    await page.getByRole('button', { name: 'Add output shaft and bearings' }).click();
    await type(page, 'Side force', '2 kN');
    await expect(page.locator('[data-check="bearing"]')).toHaveAttribute('data-state', 'fails');
    await page.locator('[data-check="bearing"]').getByRole('button').last().click();
    await expect(page.locator('[data-check="bearing"][data-state="fails"]')).toHaveCount(0);
  });

  test('shares add up, and play is sampled a hundred thousand times', async ({ page }) => {
    await openDemo(page, 'Line', 'Wing root');
    await sheet(page, 'Shares');
    for (const id of ['play', 'windUp', 'loss', 'inertia', 'mass', 'money']) {
      const block = page.locator(`[data-waterfall="${id}"]`);
      const total = Number.parseFloat(await block.locator('.rule-b button').innerText());
      const parts = await block
        .locator('li > span:last-child')
        .evaluateAll((list) => list.map((x) => Number.parseFloat(x.firstChild!.textContent!)));
      expect(parts.reduce((a, b) => a + b, 0) / total, id).toBeCloseTo(1, 1);
    }
    await expect(page.locator('[data-sampled]')).toContainText('ms');
    await expect(page.getByRole('img', { name: /Play between .* worst case/ })).toBeVisible();
    // A bought unit alone promises 18′.
    await page.getByRole('combobox', { name: 'Variant', exact: true }).selectOption({ label: 'A' });
    await expect(page.getByRole('img', { name: /Play between .* worst case 18′/ })).toBeVisible();
    await expect(page.getByRole('img', { name: /Efficiency of the stages/ })).toBeVisible();
  });

  test('a new stage asks for what the line lacks, is sized there, and lists what gives; suggestions bind nothing', async ({
    page,
  }) => {
    await page.goto('/');
    await blankJoint(page);
    await expect(limit(page, 'play')).toContainText('only suggested');
    await page.getByRole('button', { name: 'Wish for play as suggested' }).click();
    await expect(limit(page, 'play')).not.toContainText('only suggested');
    await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
    await page.getByRole('button', { name: 'Add stage' }).click();
    await page.getByRole('menuitem', { name: /^Cycloidal/ }).click();
    const ratio = page.getByRole('textbox', { name: 'Ratio of the new cycloidal stage' });
    await expect(ratio).toHaveValue(/^\d/);
    expect(Number.parseFloat(await ratio.inputValue())).toBeGreaterThan(4);
    await ratio.fill('13');
    await page.getByRole('button', { name: 'Add the stage' }).click();
    await expect(page.getByRole('form', { name: 'New stage' })).toHaveCount(0);
    await expect(limit(page, 'torque')).not.toHaveAttribute('data-state', 'fails');
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Stage/ })
      .click();
    await expect(page.getByRole('textbox', { name: 'Pins', exact: true })).toHaveValue('14');
    const gives = page.getByRole('table', { name: 'What gives, by share' });
    await expect(gives).toContainText(/output pins in their seats|eccentric bearings in the discs/);
    // Rubber discs are refused, and mended.
    await page.getByRole('combobox', { name: 'Discs', exact: true }).selectOption({ label: 'TPU 95 A, printed' });
    const rubber = page.locator('[data-check="rubber-materialD"]');
    await expect(rubber).toContainText('elastomer');
    await rubber.getByRole('button').last().click();
    await expect(rubber).toHaveCount(0);
  });

  test('a bought unit takes what a test found, with its uncertainty as the band', async ({ page }) => {
    await openDemo(page, 'Stage', 'Tide dial');
    await settled(page);
    await page.getByRole('combobox', { name: 'Variant' }).selectOption({ label: 'A' });
    const found = page.getByRole('region', { name: 'Found by a test' });
    await found.getByRole('button', { name: /^Take play .* of build C-1/ }).click();
    await expect(page.getByRole('combobox', { name: 'Bands' })).toHaveValue('given');
    const minutes = async (name: string) => Number.parseFloat(await page.getByRole('textbox', { name }).inputValue());
    const [least, likely, most] = [
      await minutes('Play, at least'),
      await minutes('Play, likely'),
      await minutes('Play, at most'),
    ];
    expect(least).toBeLessThan(likely);
    expect(most - likely).toBeCloseTo(likely - least, 1);
    await expect(page.getByRole('main').locator('[data-figure="play"]').first()).toContainText(/\(\d/);
    await type(page, 'Play, at least', '3°');
    await expect(page.getByRole('alert').first()).toContainText('least play');
  });

  test('the ratio desk: windows, a split, and the line filled with kinds that fit', async ({ page }) => {
    await openDemo(page, 'Line');
    await sheet(page, 'Ratio desk');
    const chart = page.getByRole('group', { name: 'Ratio windows' });
    await expect(chart.locator('[data-window="torque"]')).toBeVisible();
    // It opens on what the line has.
    const has = await page.getByRole('navigation', { name: 'Drive line' }).innerText();
    const made = [...has.matchAll(/([\d.]+) : 1/g)].map((m) => Number(m[1])).reduce((p, r) => p * r, 1);
    const total = await page.getByRole('textbox', { name: 'Total' }).inputValue();
    expect(Number.parseFloat(total) / made).toBeCloseTo(1, 1);
    await expect(page.getByText('It is what the line has now.')).toBeVisible();
    await expect(page.getByRole('list', { name: 'What limits the ratio' })).toContainText(
      /At least [\d.]+ for peak torque/,
    );
    await chart.getByRole('button', { name: /^3 stages/ }).click();
    await expect(page.locator('[data-split="equal"]')).toContainText('·');
    await chart.getByRole('button', { name: /^2 stages/ }).press('Enter');
    await type(page, 'Total', '15');
    await expect(page.locator('[data-split="equal"]')).toContainText('3.87 · 3.87');
    await type(page, 'Play before it', '12′');
    await type(page, 'Its own', '1′');
    await expect(
      page.getByRole('region', { name: 'A last stage of little play' }).getByRole('cell', { name: '5′', exact: true }),
    ).toBeVisible();
    await page.getByRole('combobox', { name: 'Stages of' }).selectOption('belt');
    await page.getByRole('button', { name: 'As a new variant: equal' }).click();
    await expect(page.getByRole('combobox', { name: 'Variant' }).locator('option')).toHaveCount(3);
    await expect(page.getByRole('navigation', { name: 'Drive line' }).getByText('2 Belt')).toBeVisible();
    await expect(limit(page, 'torque')).not.toHaveAttribute('data-state', 'fails');
    await type(page, 'Total', '500');
    await page.getByRole('button', { name: 'Fill the line: equal' }).click();
    await expect(page.getByRole('alert').first()).toContainText(/No belt fits/);
  });

  test('an impossible demand is explained with two ways out, and one of them is taken', async ({ page }) => {
    await openDemo(page);
    await type(page, 'Mass carried', '9 kg');
    await type(page, 'Speed', '80 rpm');
    await page.getByRole('link', { name: /^Line/ }).click();
    await sheet(page, 'Ratio desk');
    const ways = page.locator('[data-ways]');
    await expect(ways).toContainText('does not reach this at any ratio');
    await expect(ways.getByRole('listitem')).toHaveCount(2);
    await ways.getByRole('listitem').first().getByRole('button').click();
    await expect(ways).toHaveCount(0);
    await page.keyboard.press('Control+z');
    await expect(ways).toBeVisible();
  });

  test('what if: one thing changed shows every margin before and after, and can be done', async ({ page }) => {
    await openDemo(page, 'Line');
    await sheet(page, 'What if');
    await page.getByRole('combobox', { name: 'What if' }).selectOption('driver/currentLimit');
    await type(page, /^were/, '-3 A');
    await expect(page.getByRole('alert')).toContainText(/driver cannot be read at currentLimit/);
    await type(page, /^were/, '1 A');
    await page.getByRole('button', { name: 'Try it' }).click();
    const row = page.locator('[data-what-if="torque"]');
    await expect(row.locator('td').nth(3)).toContainText('✕');
    await page.getByRole('combobox', { name: 'or the motor' }).selectOption('st57-76');
    await expect(row.locator('td').nth(4)).toContainText(/\+\d+ %/);
    await expect(limit(page, 'torque')).toHaveAttribute('data-state', 'holds');
    await page.getByRole('button', { name: 'Do it' }).first().click();
    await expect(limit(page, 'torque')).toHaveAttribute('data-state', 'fails');
  });

  test('variants stand side by side, and what matters comes first', async ({ page }) => {
    await openDemo(page, 'Line');
    await sheet(page, 'Compare');
    await expect(page.locator('[data-compare="play"] [data-figure]')).toHaveCount(2);
    await expect(page.locator('[data-compare-share="windUp"]')).toContainText('1 Belt');
    await expect(page.locator('[data-matters]').first()).toHaveAttribute('data-matters', 'verdict');
    await expect(page.locator('[data-matters]').first()).toContainText('Play');
    await page.getByRole('checkbox', { name: 'B' }).uncheck();
    await expect(page.locator('[data-compare="play"] [data-figure]')).toHaveCount(1);
  });
});

test('the shop: materials, bearings and motors are changed, exported, imported, and a joint keeps its own', async ({
  page,
}) => {
  await openDemo(page, 'Shop');
  await page.getByRole('tab', { name: 'Materials' }).click();
  await type(page, 'PETG, printed, softens', '60 °C');
  await expect(page.locator('[data-moved]')).toContainText('PETG, printed');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export my changes' }).click(),
  ]);
  const text = readFileSync(await file.path(), 'utf8');
  expect(JSON.parse(text)).toMatchObject({
    format: 'gristmill-shop',
    version: 1,
    materials: [{ id: 'petg', softening: 333.15 }],
  });
  await page.getByRole('button', { name: 'Reset PETG, printed' }).click();
  await expect(page.locator('[data-moved]')).toHaveCount(0);
  const path = join(tmpdir(), 'gristmill-shop.json');
  writeFileSync(path, text.replace('333.15', '"hot"'));
  await page.getByLabel('Shop file to import').setInputFiles(path);
  await expect(page.getByRole('alert')).toContainText(/damaged at materials\.0\.softening/);
  writeFileSync(path, text);
  await page.getByLabel('Shop file to import').setInputFiles(path);
  await expect(page.getByRole('textbox', { name: 'PETG, printed, softens' })).toHaveValue('60 °C');
  await page.getByRole('tab', { name: 'Bearings' }).click();
  await page.getByRole('button', { name: 'Copy 6001', exact: true }).click();
  await expect(page.getByRole('textbox', { name: '6001, copy, C', exact: true })).toHaveValue('5400 N');
  await page.getByRole('tab', { name: 'Motors' }).click();
  await page.getByRole('combobox', { name: 'New motor' }).selectOption('brushed');
  await expect(page.getByRole('region', { name: 'Motors' }).getByRole('textbox', { name: 'Name' })).toHaveValue(
    'New brushed',
  );
  await type(page, 'Pull on its shaft', '4 kgf');
  await expect(page.getByRole('textbox', { name: 'Pull on its shaft' })).toHaveValue('39.227 N');
  await page.reload();
  await expect(page.getByText('New brushed').first()).toBeVisible();
});
