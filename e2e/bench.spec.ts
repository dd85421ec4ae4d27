import { readFileSync } from 'node:fs';
import { expect, expectAccessible, openDemo, saved, settled, test, type } from './fixture.ts';

type Page = import('@playwright/test').Page;
const begin = async (page: Page, name: RegExp) => {
  await page.getByRole('button', { name: 'New test' }).click();
  await page.getByRole('dialog').getByRole('button', { name }).click();
};
const figure = (page: Page, id: string) => page.locator(`[data-test-figure="${id}"]`);

test.describe('the bench', () => {
  test('readings are typed, pasted and imported; figures, budget and tally follow; a printed sheet and files go out', async ({
    page,
  }) => {
    await openDemo(page, 'Bench');
    await settled(page);
    await begin(page, /^Hysteresis loop/);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Hysteresis loop/);
    // One typed, then a bad one, then the rest pasted as from a spreadsheet.
    const torque = page.getByRole('textbox', { name: 'torque', exact: true });
    const angle = page.getByRole('textbox', { name: 'angle', exact: true });
    await torque.fill('0.5');
    await angle.fill('7 kg');
    await angle.press('Enter');
    await expect(page.getByRole('alert')).toContainText('unit of mass');
    const rows: string[] = [];
    let x = 0;
    for (const [a, b] of [
      [0, 4],
      [4, 0],
      [0, -4],
      [-4, 0],
    ] as const)
      for (let i = 1; i <= 10; i++) {
        const t = a + ((b - a) * i) / 10;
        x = Math.max(t - 0.2, Math.min(t + 0.2, x));
        rows.push(
          `${t.toFixed(2).replace('.', ',')}\t${(Math.sign(x) * 3 + x * 6 + 0.02 * Math.sin(i * 7)).toFixed(3).replace('.', ',')}`,
        );
      }
    await torque.focus();
    await page.evaluate(
      (text) => {
        const data = new DataTransfer();
        data.setData('text', text);
        document.activeElement!.dispatchEvent(
          new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
        );
      },
      `torque (N·m)\tangle (′)\n${rows.join('\n')}`,
    );
    await expect(figure(page, 'play')).toContainText(/^(5\.9|6\.0|6\.1)/);
    await expect(page.getByRole('list', { name: 'What was noticed while reading' })).toContainText(
      'Commas were read as decimal points',
    );
    await expect(page.getByRole('table', { name: 'Budget of the uncertainty' })).toContainText(
      'scatter about the loop',
    );
    await expect(page.locator('[data-limit="play"] [data-found]')).toContainText(/5\.9[5-9]|6\.0/);
    await expectAccessible(page);
    // A struck reading stays, with its reason.
    await page.getByRole('button', { name: 'Strike out' }).first().click();
    await page.getByRole('textbox', { name: 'Why it is struck out' }).fill('bumped the table');
    await page.keyboard.press('Enter');
    await expect(page.getByText('bumped the table')).toBeVisible();
    const [csv] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save as CSV' }).click(),
    ]);
    expect(readFileSync(await csv.path(), 'utf8')).toContain('bumped the table');
    const [json] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save as JSON' }).click(),
    ]);
    expect((JSON.parse(readFileSync(await json.path(), 'utf8')) as { kind: string }).kind).toBe('hysteresis');
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByText('measured by')).toBeVisible();
    await page.emulateMedia({ media: 'screen' });
    await saved(page);
    await page.reload();
    await expect(figure(page, 'play')).toContainText('′');
  });

  test('a long list of readings: those in sight are on the page, all of them on paper', async ({ page }) => {
    await openDemo(page, 'Bench');
    await settled(page);
    await begin(page, /^Temperature/);
    const rows = Array.from({ length: 380 }, (_, i) => `${i * 10},${(20 + i / 100).toFixed(2)}`);
    await page.getByLabel('Import readings: file').setInputFiles({
      name: 'warm.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`time (s),temperature (°C)\n${rows.join('\n')}`),
    });
    const all = page.getByRole('region', { name: 'All 380 of them' });
    await expect(all.getByRole('cell', { name: '23.79 °C' }).first()).toBeVisible();
    expect(await all.getByRole('row').count()).toBeLessThan(80);
    await expectAccessible(page);
    await all.evaluate((box) => box.scrollTo(0, 0));
    await expect(all.getByRole('cell', { name: '20 °C' }).first()).toBeVisible();
    await all.getByRole('button', { name: /^time/ }).click();
    await all.getByRole('button', { name: /^time/ }).click();
    await expect(all.getByRole('row').nth(1)).toContainText('3790 s');
    // On paper all of them stand.
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByRole('region', { name: 'Readings' }).getByRole('row')).toHaveCount(381);
    await page.emulateMedia({ media: 'screen' });
  });

  test('a damaged file changes nothing; a long table becomes a recording; sound is heard', async ({ page }) => {
    await openDemo(page, 'Bench');
    await settled(page);
    await begin(page, /^Step response/);
    const file = page.getByLabel('Import readings: file');
    await file.setInputFiles({ name: 'x.csv', mimeType: 'text/csv', buffer: Buffer.from('time,foo\n1,2\n') });
    await expect(page.getByRole('alert')).toContainText('missing');
    const rows = Array.from(
      { length: 900 },
      (_, i) =>
        `${(i * 0.005).toFixed(3)},${i < 60 ? 0 : 5},${i < 60 ? 0 : (5 * (1 - Math.exp(-(i - 60) / 40))).toFixed(4)}`,
    );
    rows[400] = 'oops,,';
    await file.setInputFiles({
      name: 'step.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`time (s),commanded (°),measured (°)\n${rows.join('\n')}`),
    });
    await expect(page.getByText(/^(?!Packing).*899 samples/)).toBeVisible();
    await expect(page.getByRole('list', { name: 'What was noticed while reading' })).toContainText(
      '1 row could not be read',
    );
    await expect(figure(page, 'rise')).toContainText('s');
    // Rows in disorder are taken by their times, and put in order on asking.
    await begin(page, /^Temperature/);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Temperature/);
    const minutes = Array.from(
      { length: 15 },
      (_, i) => `${(i * 7) % 15},${(20 + 30 * (1 - Math.exp(-((i * 7) % 15) / 4))).toFixed(2)}`,
    );
    await file.setInputFiles({
      name: 'warm.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`time (min),temperature (°C)\n${minutes.join('\n')}`),
    });
    await expect(figure(page, 'settles')).toContainText('°C');
    const before = await figure(page, 'settles').innerText();
    await page.getByRole('button', { name: 'Sort the readings by time' }).click();
    await expect(page.getByText(/Times go back/)).toHaveCount(0);
    await expect(page.getByRole('region', { name: 'Readings' }).locator('tbody tr').nth(1)).toContainText('26.6');
    expect(await figure(page, 'settles').innerText()).toBe(before);
    await begin(page, /^Pluck a belt/);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Pluck a belt/);
    const rate = 8000;
    const wav = Buffer.alloc(44 + rate * 2);
    wav.write('RIFF', 0);
    wav.writeUInt32LE(36 + rate * 2, 4);
    wav.write('WAVEfmt ', 8);
    wav.writeUInt32LE(16, 16);
    wav.writeUInt16LE(1, 20);
    wav.writeUInt16LE(1, 22);
    wav.writeUInt32LE(rate, 24);
    wav.writeUInt32LE(rate * 2, 28);
    wav.writeUInt16LE(2, 32);
    wav.writeUInt16LE(16, 34);
    wav.write('data', 36);
    wav.writeUInt32LE(rate * 2, 40);
    for (let i = 0; i < rate; i++)
      wav.writeInt16LE(Math.round(20000 * Math.exp(-i / 3000) * Math.sin((2 * Math.PI * 88 * i) / rate)), 44 + 2 * i);
    await file.setInputFiles({ name: 'tap.wav', mimeType: 'audio/wav', buffer: wav });
    await expect(figure(page, 'frequency')).toContainText(/^(87\.\d|88)/);
  });

  test('a long recording is analysed behind a bar; stopped, it says so and begins again', async ({ page }) => {
    test.setTimeout(120_000);
    await openDemo(page, 'Bench');
    await settled(page);
    await begin(page, /^Transmission error/);
    const rows: string[] = ['input (rad),output (rad)'];
    const n = 700_000;
    for (let i = 0; i < n; i++) {
      const input = (Math.min(i, n - i) / n) * 2 * 6.4 * 20;
      rows.push(`${input.toFixed(4)},${(input / 20 + 4e-4 * Math.sin(input) - (i > n / 2 ? 0 : 1e-3)).toFixed(6)}`);
    }
    await page
      .getByLabel('Import readings: file')
      .setInputFiles({ name: 'turn.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) });
    await page.getByRole('button', { name: 'Stop the analysis' }).click({ timeout: 60_000 });
    await expect(page.getByText('The analysis was stopped')).toBeVisible();
    await page.getByRole('button', { name: 'Analyse again' }).click();
    await expect(page.getByRole('progressbar', { name: 'Analysis' })).toBeVisible();
    await expect(figure(page, 'ratio')).toContainText(/^(20\.00|19\.99)/, { timeout: 30_000 });
    await expect(page.getByRole('progressbar', { name: 'Analysis' })).toHaveCount(0);
    await expect(page.getByText('The analysis was stopped')).toHaveCount(0);
  });

  test('the test plan says what answers the brief, in a safe order, and begins it with a rig that is fine enough', async ({
    page,
  }) => {
    await openDemo(page, 'Bench');
    await settled(page);
    await page.getByRole('button', { name: 'Test plan' }).click();
    const plan = page.getByRole('dialog');
    await expect(plan.getByRole('region', { name: 'First, without load' })).toContainText('Play at a lever');
    await expect(plan.getByRole('region', { name: 'Last, what can hurt it' })).toContainText('Torque ladder');
    await expectAccessible(page);
    await plan.getByRole('button', { name: 'Begin Hysteresis loop for Stiffness' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Hysteresis loop/);
    await expect(page.getByRole('img', { name: 'Rig for hysteresis loop' })).toBeVisible();
  });

  test('a whole guided session on the simulated specimen, found figures in the tally', async ({ page }) => {
    await openDemo(page, 'Bench', 'Neck lift');
    await settled(page);
    await page.getByRole('combobox', { name: 'Variant' }).selectOption('d');
    await page.getByRole('button', { name: 'Live rig' }).click();
    await page.getByRole('button', { name: 'Run the session' }).click();
    await expect(page.getByText('The session is done')).toBeVisible({ timeout: 40_000 });
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Transmission error/);
    const tests = page.getByRole('region', { name: 'Tests by build' });
    for (const name of ['Play at a lever', 'Hysteresis loop', 'Torque by load cell', 'Transmission error'])
      await expect(tests.getByRole('button', { name: new RegExp(`^${name}.*±`) }).last()).toBeVisible();
    await expect(page.locator('[data-limit="stiffness"] [data-found]')).toContainText('±');
    await expectAccessible(page);
  });

  test('the simulated rig warms up; what was recorded so far becomes a test that says to read on', async ({ page }) => {
    await openDemo(page, 'Bench', 'Neck lift');
    await page.getByRole('button', { name: 'Live rig' }).click();
    await page.getByRole('combobox', { name: 'Programme' }).selectOption('warming');
    await expect(page.getByText('3000 s at 2 Hz')).toBeVisible();
    await page.getByRole('button', { name: 'Record', exact: true }).click();
    await expect
      .poll(async () => Number(await page.locator('[data-samples]').getAttribute('data-samples')))
      .toBeGreaterThan(200);
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    await page.getByRole('button', { name: 'Take the recording' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Temperature/);
    await expect(figure(page, 'settles')).toContainText('°C');
    await expect(page.getByRole('list', { name: 'What to read next' })).toContainText('still rising');
  });

  test('the rig streams from the bridge’s stand-in and survives a reload', async ({ page }) => {
    await openDemo(page, 'Bench', 'Tide dial');
    await settled(page);
    await page.getByRole('button', { name: 'Live rig' }).click();
    await page.getByRole('combobox', { name: 'From' }).selectOption('bridge');
    await page.getByRole('button', { name: 'Record', exact: true }).click();
    await expect
      .poll(async () => Number(await page.locator('[data-samples]').getAttribute('data-samples')), { timeout: 15_000 })
      .toBeGreaterThan(3000);
    await page.reload();
    await page.getByRole('button', { name: 'Bring it back' }).click();
    await expect(page.getByText(/Recovered \d+ samples/)).toBeVisible();
    await page.getByRole('combobox', { name: 'Test', exact: true }).selectOption('transmission');
    await page.getByRole('button', { name: 'Take the recording' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Transmission error/);
  });
});

test.describe('the bench, further', () => {
  test('a slip of units is asked about, corrected in one press, and undone', async ({ page }) => {
    await openDemo(page, 'Bench', 'Wing root');
    await settled(page);
    await begin(page, /^Play by a spot of light/);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Play by a spot/);
    // Metres typed where millimetres were meant, a thousand times too much.
    for (const text of ['3.6', '3.7', '3.5']) {
      await page.getByRole('textbox', { name: 'spot moved by' }).fill(`${text} m`);
      await page.keyboard.press('Enter');
    }
    const slip = page.locator('[data-slip]').first();
    await expect(slip).toContainText('Did you mean');
    await slip.getByRole('button', { name: 'Correct the readings so' }).click();
    await expect(page.locator('[data-slip]')).toHaveCount(0);
    await expect(page.getByText(/÷ 1000/).first()).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(page.locator('[data-slip]').first()).toBeVisible();
  });

  test('what was found decides, on the shelf too; of a build of an earlier design it does not, until it is said to be as now', async ({
    page,
  }) => {
    await openDemo(page, 'Line');
    await settled(page);
    const play = page.getByRole('complementary', { name: 'Tally' }).locator('[data-limit="play"]');
    await expect(play).toHaveAttribute('data-by', 'found');
    await expect(play).toHaveAttribute('data-state', 'fails');
    await type(page, 'Supply voltage', '30 V');
    await expect(play).toHaveAttribute('data-by', 'expected');
    await expect(play).toContainText('ound of a build of an earlier design');
    await page.getByRole('link', { name: /^Make/ }).click();
    await page.getByRole('button', { name: 'It was built as it is now' }).first().click();
    await expect(play).toHaveAttribute('data-by', 'found');
    await page.keyboard.press('Control+z');
    await expect(play).toHaveAttribute('data-by', 'expected');
    await page.keyboard.press('Control+z');
    await expect(play).toHaveAttribute('data-by', 'found');
    await page.getByRole('link', { name: 'Gristmill' }).click();
    await expect(page.locator('[data-joint="Body yaw"]')).toContainText('missedplay');
  });

  test('an instrument is calibrated by two known values, and the reading follows; nonsense is refused', async ({
    page,
  }) => {
    await openDemo(page, 'Bench', 'Neck lift');
    await settled(page);
    await page.getByRole('button', { name: /^Leg press/ }).click();
    const before = await page.locator('[data-test-figure="force"]').innerText();
    await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Shop/ }).click();
    await page
      .getByRole('tab', { name: 'Instruments' })
      .or(page.getByRole('link', { name: 'Instruments' }))
      .or(page.getByRole('button', { name: 'Instruments' }))
      .first()
      .click();
    await page.getByRole('button', { name: 'Calibrate Hanging scale' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('textbox', { name: 'Second known value' }).fill('5 kg');
    await dialog.getByRole('textbox', { name: 'Read for that' }).fill('50 kg');
    await dialog.getByRole('button', { name: 'Take the calibration' }).click();
    await expect(dialog.getByRole('alert')).toContainText('no calibration');
    await expectAccessible(page);
    await dialog.getByRole('textbox', { name: 'Read for that' }).fill('4.8 kg');
    await dialog.getByRole('button', { name: 'Take the calibration' }).click();
    await expect(page.getByRole('row', { name: /Hanging scale/ })).toContainText('× 1.0417');
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Bench/ })
      .click();
    await page.getByRole('button', { name: /^Leg press/ }).click();
    await expect(page.getByRole('list', { name: 'What to read next' })).toContainText('corrected by the calibration');
    await expect(page.locator('[data-test-figure="force"]')).not.toHaveText(before);
  });

  test('teardown is recorded part by part with a photo; a sensor’s error is stored as its map', async ({ page }) => {
    await openDemo(page, 'Bench', 'Wing root');
    await settled(page);
    await page.getByRole('button', { name: /^Endurance/ }).click();
    const teardown = page.getByRole('region', { name: 'Teardown' });
    await teardown.getByRole('textbox', { name: 'Part' }).fill('ring');
    await teardown.getByRole('combobox', { name: 'Condition' }).selectOption('scored');
    await teardown.getByRole('button', { name: 'Add part' }).click();
    await expect(teardown).toContainText('ring');
    // The smallest picture there is: one red pixel.
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8DwHwAFBQIAX8jx0gAAAABJRU5ErkJggg==',
      'base64',
    );
    await teardown.getByRole('button', { name: 'Add photo' }).last().click();
    await page.getByLabel('Photo of a part').setInputFiles({ name: 'p.png', mimeType: 'image/png', buffer: png });
    await expect(teardown.getByRole('img', { name: 'ring, photo 1' })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('link', { name: 'Gristmill' }).click();
    await page.getByRole('link', { name: 'Body yaw' }).click();
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Bench/ })
      .click();
    await page.getByRole('button', { name: /^Transmission error/ }).click();
    await page.getByRole('combobox', { name: 'Read with' }).selectOption('magnetic');
    await page.getByRole('button', { name: 'Store as the sensor’s map' }).click();
    await expect(page.getByText(/Stored: \d harmonics/)).toBeVisible();
    await expect(page.getByRole('list', { name: 'What to read next' })).toContainText('taken out by its map');
  });

  test('a recorded file is replayed through the live rig, its channels calibrated; what is not whole is counted', async ({
    page,
  }) => {
    await openDemo(page, 'Bench', 'Tide dial');
    await settled(page);
    await page.getByRole('button', { name: 'Live rig' }).click();
    await page.getByRole('combobox', { name: 'From' }).selectOption('file');
    const lines = [
      '{"channels":[{"name":"t"},{"name":"in","quantity":"angle"},{"name":"out","quantity":"angle","counts":4096}],"rate":500}',
    ];
    for (let i = 0; i < 4000; i++)
      lines.push(
        `{"t":${(i * 0.002).toFixed(3)},"in":${(i < 2000 ? i * 0.28 : (4000 - i) * 0.28).toFixed(3)},"out":` +
          `${Math.round((((i < 2000 ? i : 4000 - i) * 0.28) / 40 / 6.283185) * 4096)}}`,
      );
    lines.splice(1000, 0, 'half a li');
    const recorded = { name: 'run.jsonl', mimeType: 'text/plain', buffer: Buffer.from(lines.join('\n')) };
    await page.getByLabel('Recorded file').setInputFiles(recorded);
    await expect(page.getByText('4000 samples, 1 lines left out')).toBeVisible();
    await page.getByRole('button', { name: 'Turn the sense of out' }).click();
    await expect(page.getByRole('button', { name: 'Turn the sense of out' })).toHaveText('counts backwards');
    // A known value held now, against the zero, makes the scale; what cannot is said.
    const now = page.getByRole('textbox', { name: 'out reads now' });
    await now.fill('0');
    await now.press('Enter');
    await expect(page.getByRole('alert')).toContainText('gives no scale');
    await now.press('Escape');
    // Kept with the instrument, the sense is known to the next recording of a channel of that name.
    await page
      .getByRole('group', { name: 'Channel out' })
      .getByRole('combobox', { name: 'Read with' })
      .selectOption('magnetic');
    await page.getByLabel('Recorded file').setInputFiles(recorded);
    await expect(page.getByRole('button', { name: 'Turn the sense of out' })).toHaveText('counts backwards');
    await page.getByRole('button', { name: 'Take the recording' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Transmission error/);
    await expect(figure(page, 'ratio')).toContainText(/^−40|^−39\.99/);
  });
});
