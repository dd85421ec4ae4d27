import { test as base, expect, type Page } from '@playwright/test';
import axe from 'axe-core';

/** Every test fails on a message in the console, an uncaught error or a request that leaves this machine. */
export const test = base.extend<{ quiet: string[] }>({
  quiet: [
    async ({ page }, use) => {
      const said: string[] = [];
      // A software driver remarks on its own speed when a canvas in space is put on the page; that is no fault of ours.
      page.on(
        'console',
        (m) =>
          (m.type() === 'error' || m.type() === 'warning') &&
          !/GL Driver Message \(OpenGL, Performance/.test(m.text()) &&
          said.push(`${m.type()}: ${m.text()}`),
      );
      page.on('pageerror', (e) => said.push(`uncaught: ${e.message}`));
      page.on(
        'request',
        (r) => !/^(http:\/\/127\.0\.0\.1|data:|blob:)/.test(r.url()) && said.push(`request to ${r.url()}`),
      );
      await use(said);
      expect(said, 'the console is clean').toEqual([]);
      // Values that stand in sentences of the core are written in a unit wherever they are shown.
      if (!page.isClosed()) {
        const html = await page.content();
        expect(
          html.slice(Math.max(0, html.search(/[\uE000\uE001]/) - 80)).match(/.{0,200}[\uE000\uE001].{0,40}/s)?.[0],
        ).toBeUndefined();
      }
    },
    { auto: true },
  ],
});

export { expect };

/** Opens a demo joint from an empty shelf and waits until its line is worked out. */
export async function openDemo(page: Page, view = 'brief', joint = 'Body yaw'): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Open the demo set' }).click();
  await page.getByRole('link', { name: joint }).click();
  await page.waitForURL(/\/joint\/.*\/brief/);
  await expect(page.locator('[data-limit="torque"] [data-figure]')).toContainText('N·m');
  if (view !== 'brief')
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: new RegExp(`^${view}`, 'i') })
      .click();
}

/** Waits until a view that was asked for has come: its script, and what it shows while that is fetched. */
export async function settled(page: Page): Promise<void> {
  await page.waitForLoadState('networkidle');
  await expect(page.getByText(/^(Laying out the sheet|Opening the joint|Working out the windows)…$/)).toHaveCount(0);
  await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
}

/** No axe violation on the page as it stands. */
export async function expectAccessible(page: Page, what: 'all' | 'contrast' = 'all'): Promise<void> {
  // A note half faded in has half its contrast.
  await page.waitForFunction(() => document.getAnimations().every((a) => a.playState !== 'running'));
  const runOnly =
    what === 'all'
      ? { type: 'tag' as const, values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'best-practice'] }
      : { type: 'rule' as const, values: ['color-contrast'] };
  // The script is half a megabyte: a page that has it already is not given it again.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  // There are no frames to put results of together, a selector of every element that passed costs more than its check,
  // and no rule that is asked for here reads style sheets.
  const violations = await page.evaluate(
    async (options) => {
      const here = (window as unknown as { axe: typeof axe }).axe;
      const found = await here.run(document, options);
      return found.violations.map(
        (v) =>
          `${v.id}: ${v.help} — ${v.nodes
            .slice(0, 3)
            .map((n) => n.html.slice(0, 160))
            .join(' | ')}`,
      );
    },
    { runOnly, resultTypes: ['violations' as const], selectors: false, iframes: false, preload: false },
  );
  expect(violations).toEqual([]);
}

/** Types into a quantity field and accepts with Enter. */
export async function type(page: Page, label: string | RegExp, text: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label, exact: typeof label === 'string' });
  await field.fill(text);
  await field.press('Enter');
}

export const saved = (page: Page) =>
  expect(page.locator('[data-save]')).toHaveAttribute('data-save', 'saved', { timeout: 8_000 });
