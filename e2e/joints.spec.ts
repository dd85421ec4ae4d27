import { readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { blankJoint, expect, openDemo, saved, test, type } from './fixture.ts';

test.describe('the shelf of joints', () => {
  test('a joint from nothing: what it must do, what matters, a line picked of those found beside it', async ({
    page,
  }) => {
    // On a busy machine its search takes long.
    test.slow();
    test.setTimeout(120_000);
    await page.goto('/');
    await page.getByRole('button', { name: 'New joint' }).first().click();
    const form = page.getByRole('form', { name: 'New joint' });
    const lines = form.getByRole('table', { name: 'Lines that could do it' });
    await form.getByRole('button', { name: /^Make/ }).click();
    await expect(form.getByRole('alert')).toContainText('The joint has no name');
    await form.getByRole('textbox', { name: 'Name' }).fill('Lamp <b>arm</b>');
    await type(page, 'Axis to load', '10 in');
    // Nothing can be so light: it says what stops the nearest, and the joint could be made all the same.
    await form.getByRole('combobox', { name: 'Stages, at most' }).selectOption('1');
    await form.getByRole('combobox', { name: 'Gearing' }).selectOption('bought');
    await type(page, 'Mass, at most', '1 g');
    await expect(form.getByRole('checkbox', { name: 'Mass must be kept' })).toBeChecked();
    await expect(form.getByRole('alert')).toContainText('No line that was put together meets every must', {
      timeout: 40_000,
    });
    await expect(form).toContainText(/Bought unit: the nearest line has mass .* at most 0.001 kg is asked/);
    await expect(form.getByRole('button', { name: 'Make it without stages' })).toBeEnabled();
    await form.getByRole('checkbox', { name: 'Mass must be kept' }).uncheck();
    await form.getByRole('combobox', { name: 'Gearing' }).selectOption('made or bought');
    await expect(lines).toBeVisible({ timeout: 40_000 });
    const belt = lines.getByRole('radio', { name: /^belt/ });
    await belt.check();
    await expect(form.getByRole('status')).toContainText(/\d+ found/, { timeout: 60_000 });
    await belt.check();
    await form.getByRole('button', { name: 'Make this joint' }).click();
    await page.waitForURL(/brief/);
    await expect(page.locator('[data-limit="torque"]')).toHaveAttribute('data-state', /holds|near/);
    await page.getByRole('link', { name: /1 Belt/ }).click();
    await expect(page.locator('[data-drawing] [data-layer="teeth"] path').first()).toBeVisible();
    // What was found came along, is there after a reload, and knows that the brief moved on.
    const find = async () => {
      await page.getByRole('navigation', { name: 'Views' }).getByRole('link', { name: /^Line/ }).click();
      await page
        .getByRole('navigation', { name: 'Sheets of the line' })
        .getByRole('link', { name: 'Find lines' })
        .click();
    };
    await find();
    const status = page.getByRole('main').getByRole('status').first();
    await expect(status).toContainText(/\d+ lines out of/);
    await expect(status).not.toContainText('has changed since');
    await saved(page);
    await page.reload();
    await expect(status).toContainText(/\d+ lines out of/);
    await expect(status).not.toContainText('has changed since');
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Brief/ })
      .click();
    await type(page, 'Mass carried', '0.9 kg');
    await find();
    await expect(status).toContainText('has changed since: find again');
    await page.getByRole('link', { name: 'Gristmill' }).click();
    await expect(page.getByRole('link', { name: 'Lamp <b>arm</b>' })).toBeVisible();
  });

  test('a blank joint gets its first stage in the line, reordered and removed', async ({ page }) => {
    await page.goto('/');
    await blankJoint(page);
    await page.getByRole('link', { name: /^Stage/ }).click();
    await expect(page.getByRole('heading', { name: 'This line has no stages yet.' })).toBeVisible();
    await page.getByRole('link', { name: /^Line/ }).click();
    for (let i = 0; i < 2; i++) {
      await page.getByRole('button', { name: 'Add stage' }).click();
      await page.getByRole('menuitem', { name: /^Belt/ }).click();
      await page.getByRole('button', { name: 'Add the stage' }).click();
      await expect(page.getByRole('form', { name: 'New stage' })).toHaveCount(0);
    }
    await expect(page.locator('tr[data-stage]')).toHaveCount(2);
    await page.getByRole('link', { name: '2 Belt' }).last().click();
    await type(page, 'Driven pulley', '44');
    await page.getByRole('link', { name: /^Line/ }).click();
    const ratio = (stage: number) => page.locator(`tr[data-stage="${stage}"] td`).nth(2);
    await expect(ratio(1)).toHaveText(/\d/);
    const first = await ratio(1).innerText();
    await expect(ratio(2)).not.toHaveText(first);
    const last = await ratio(2).innerText();
    await page.getByRole('button', { name: 'Stage 2 towards the motor' }).click();
    await expect(ratio(1)).toHaveText(last);
    await page.getByRole('button', { name: 'Remove stage 1' }).click();
    await expect(page.locator('tr[data-stage]')).toHaveCount(1);
    await page.keyboard.press('Control+z');
    await expect(page.locator('tr[data-stage]')).toHaveCount(2);
  });

  test('rename, duplicate, delete and bring back', async ({ page }) => {
    await openDemo(page);
    await page.getByRole('link', { name: 'Gristmill' }).click();
    const more = (name: string) => page.getByRole('button', { name: `More for ${name}` });
    await more('Body yaw').click();
    await page.getByRole('menuitem', { name: 'Rename' }).click();
    await page.getByRole('textbox', { name: 'Name' }).fill('Body turn');
    await page.getByRole('textbox', { name: 'Name' }).press('Enter');
    await expect(page.getByRole('link', { name: 'Body turn', exact: true })).toBeVisible();
    await more('Body turn').click();
    await page.getByRole('menuitem', { name: 'Duplicate' }).click();
    await expect(page.getByRole('link', { name: 'Body turn copy' })).toBeVisible();
    await more('Body turn copy').click();
    await page.getByRole('menuitem', { name: 'Delete' }).click();
    await expect(page.getByRole('link', { name: 'Body turn copy' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('link', { name: 'Body turn copy' })).toBeVisible();
  });

  test('an exported file comes back the same, and damaged files are refused in words', async ({ page }) => {
    await openDemo(page);
    const [file] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Control+e')]);
    const text = readFileSync(await file.path(), 'utf8');
    await page.getByRole('link', { name: 'Gristmill' }).click();
    const bring = (name: string, body: string | Buffer) =>
      page
        .getByLabel('Joint file to import')
        .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(body) });
    await bring('again.json', text);
    await expect(page.getByRole('link', { name: 'Body yaw (imported)' })).toBeVisible();
    const cases: [string, string | Buffer, RegExp][] = [
      ['cut.json', text.slice(0, text.length / 2), /cannot be read.*cut off/s],
      ['empty.json', '', /empty/],
      ['junk.json', Buffer.alloc(1000, 7), /cannot be read/],
      ['other.json', '{"format":"else"}', /not a joint file/],
      ['newer.json', text.replace(/"version": \d+/, '"version": 99'), /newer Gristmill/],
      ['altered.json', text.replace('"z1": 16', '"z1": -4'), /z1 must be at least 6/],
    ];
    for (const [name, body, why] of cases) {
      await bring(name, body);
      await expect(page.getByRole('alert').first()).toContainText(why);
    }
    // By path, and of holes: a file this large is slow to make and to hand over otherwise.
    const huge = test.info().outputPath('huge.json');
    writeFileSync(huge, '');
    truncateSync(huge, 450_000_000);
    await page.getByLabel('Joint file to import').setInputFiles(huge);
    await expect(page.getByRole('alert').first()).toContainText(/too large \(450 MB\)/);
    await expect(page.locator('[data-joint]')).toHaveCount(6);
  });

  test('a version 1 file is brought up', async ({ page }) => {
    await page.goto('/');
    await page.getByLabel('Joint file to import').setInputFiles('core/test/fixtures/version-1.json');
    await page.getByRole('link', { name: 'Old wrist' }).click();
    await expect(page.getByRole('textbox', { name: 'Mass carried' })).toHaveValue('0.6 kg');
    await expect(page.locator('[data-limit="play"]')).toContainText('≤ 8′');
  });

  test('earlier saves can be restored, and the restoring undone', async ({ page }) => {
    await openDemo(page);
    await type(page, 'Mass carried', '1.7 kg');
    await saved(page);
    await type(page, 'Mass carried', '1.9 kg');
    await saved(page);
    await page.locator('[data-save]').click();
    const dialog = page.getByRole('dialog', { name: 'Earlier saves' });
    await expect(dialog.getByRole('listitem')).toHaveCount(3);
    await dialog.getByRole('button', { name: 'Restore' }).last().click();
    await expect(page.getByRole('textbox', { name: 'Mass carried' })).toHaveValue('1.1 kg');
    await page.getByRole('heading', { name: /Arm against gravity/ }).click();
    await page.keyboard.press('Control+z');
    await expect(page.getByRole('textbox', { name: 'Mass carried' })).toHaveValue('1.9 kg');
  });
});
