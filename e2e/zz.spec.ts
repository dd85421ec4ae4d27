import { openDemo, test } from './fixture.ts';
import { expect } from '@playwright/test';
const seeds = Array.from({ length: Number(process.env.RUNS ?? 6) }, (_, i) => i + Number(process.env.FROM ?? 1));
for (const seed of seeds)
  test(`monkey ${seed}`, async ({ page }) => {
    test.setTimeout(160_000);
    let s = seed * 7919 + 13;
    const rnd = (n: number) => { s = (s * 1103515245 + 12345) & 0x7fffffff; return Math.floor((s / 0x7fffffff) * n) % n; };
    const errors: string[] = [];
    page.on('pageerror', (e) => errors.push(String(e)));
    page.on('console', (m) => { if (m.type() === 'error') errors.push(m.text()); });
    const joint = ['Body yaw', 'Wing root', 'Neck lift', 'Body yaw'][rnd(4)]!;
    const view = (['Make', 'Stage', 'Line', 'Make'] as const)[rnd(4)]!;
    await openDemo(page, view as never, joint as never);
    const log: string[] = [`${joint} ${view}`];
    const values = ['0', '-1', '3', '1e9', '', '5 mm', '40', '0.5', 'abc', '12', '2.5', '7', '100', '90°'];
    if (view === 'Make') await page.getByRole('navigation', { name: 'Sheets of Make' }).getByRole('link', { name: 'Section', exact: true }).click();
    for (let k = 0; k < 45; k++) {
      const dialogs = page.getByRole('dialog');
      if (await dialogs.count()) { await page.keyboard.press('Escape'); }
      const roll = rnd(10);
      try {
        if (roll < 3) {
          const list = page.locator('main select:visible:enabled');
          const n = await list.count(); if (!n) continue;
          const el = list.nth(rnd(n));
          const opts = await el.locator('option').allTextContents();
          const o = opts[rnd(opts.length)]!;
          log.push(`select ${await el.getAttribute('id')} ${o}`);
          await el.selectOption({ label: o }, { timeout: 2000 });
        } else if (roll < 7) {
          const list = page.locator('main input:visible:enabled:not([type=range]):not([type=checkbox]):not([type=file])');
          const n = await list.count(); if (!n) continue;
          const el = list.nth(rnd(n));
          const v = values[rnd(values.length)]!;
          log.push(`type ${await el.getAttribute('id') ?? await el.getAttribute('aria-label')} ${v}`);
          await el.fill(v, { timeout: 2000 }); await el.press('Enter', { timeout: 2000 });
        } else if (roll < 9) {
          const list = page.locator('main button:visible:enabled');
          const n = await list.count(); if (!n) continue;
          const el = list.nth(rnd(n));
          const t = (await el.textContent()) ?? '';
          if (/Save|Download|Print|files|CSV|Markdown|Export|Record/.test(t)) continue;
          log.push(`click ${t.slice(0, 40)}`);
          await el.click({ timeout: 2000 });
        } else {
          const list = page.locator('nav a:visible');
          const n = await list.count();
          const el = list.nth(rnd(n));
          log.push(`nav ${await el.textContent()}`);
          await el.click({ timeout: 2000 });
        }
      } catch (e) { log.push(`  (${String(e).split('\n')[0]!.slice(0, 80)})`); }
      await page.waitForTimeout(120);
      const text = await page.locator('body').innerText();
      const bad = /NaN|undefined|\[object|Infinity|[\uE000-\uE00F]|\d[.\d]*e-\d+|Something went wrong/.exec(text);
      if (bad) { console.log('BAD', seed, bad[0], text.slice(Math.max(0, bad.index - 120), bad.index + 80).replace(/\n/g, ' | '), log.join(' ; ')); expect(bad, log.join('\n')).toBeNull(); }
      if (errors.length) { console.log('ERR', seed, errors.slice(0, 3).join(' || ').slice(0, 600), log.join(' ; ')); expect(errors).toEqual([]); }
      if (text.trim().length < 200) { console.log('BLANK', seed, log.join(' ; ')); expect(text.length).toBeGreaterThan(200); }
    }
  });
