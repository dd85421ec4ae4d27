import { test as base, expect, type BrowserContext, type Page } from '@playwright/test';
import { browserUse } from './browser.ts';
import axe from 'axe-core';

/**
 * Runs in the page: values that stand in sentences of the core are written in a unit wherever they are shown, however
 * short; one that is not is told in the console, which must stay clean.
 */
function tellUnwritten(): void {
  const look = (text: string | null | undefined) => {
    if (text && /[\uE000\uE001]/.test(text))
      // The console is what every flow is held by.
      // eslint-disable-next-line no-console
      console.error(
        `a value is not written: ${text.slice(Math.max(0, text.search(/[\uE000\uE001]/) - 80)).slice(0, 200)}`,
      );
  };
  const labels = ['aria-label', 'title', 'alt', 'placeholder'];
  new MutationObserver((records) => {
    for (const r of records) {
      if (r.type === 'attributes') look((r.target as Element).getAttribute(r.attributeName!));
      else if (r.type === 'characterData') look(r.target.textContent);
      else
        for (const node of r.addedNodes) {
          look(node.textContent);
          if (node instanceof Element)
            for (const e of [node, ...node.querySelectorAll('[aria-label],[title],[alt],[placeholder]')])
              for (const name of labels) look(e.getAttribute(name));
        }
    }
  }).observe(document, {
    subtree: true,
    childList: true,
    characterData: true,
    attributes: true,
    attributeFilter: labels,
  });
}

/** Every test fails on a message in the console, an uncaught error or a request that leaves this machine. */
export const test = base.extend<{ quiet: string[] }, { shared: BrowserContext }>({
  shared: [
    async ({ browser }, use) => {
      const { launchOptions: _, trace: __, ...options } = browserUse;
      const context = await browser.newContext(options);
      const keeper = await context.newPage();
      await keeper.goto('/health');
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ shared }, use) => {
    await use(shared);
    const [keeper, ...others] = shared.pages();
    await Promise.all(others.map((p) => p.close()));
    const session = await shared.newCDPSession(keeper!);
    await session.send('Storage.clearDataForOrigin', { origin: browserUse.baseURL, storageTypes: 'all' });
    await session.detach();
  },
  quiet: [
    async ({ page }, use) => {
      const said: string[] = [];
      // A software driver remarks on its own speed when a canvas in space is put on the page; that is no fault of ours.
      page.on(
        'console',
        (m) =>
          (m.type() === 'error' || m.type() === 'warning') &&
          !/GL Driver Message \(OpenGL, Performance|Service Worker registration blocked by Playwright/.test(m.text()) &&
          said.push(`${m.type()}: ${m.text()}`),
      );
      page.on('pageerror', (e) => said.push(`uncaught: ${e.message}`));
      page.on(
        'request',
        (r) => !/^(http:\/\/127\.0\.0\.1|data:|blob:)/.test(r.url()) && said.push(`request to ${r.url()}`),
      );
      await page.addInitScript(tellUnwritten);
      await use(said);
      expect(said, 'the console is clean').toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** What the demo set leaves in storage, and where each of its joints is found; kept by the page that keeps the context. */
interface DemoKept {
  readonly hrefs: Readonly<Record<string, string>>;
  readonly version: number;
  readonly tables: readonly { readonly name: string; readonly entries: readonly (readonly [IDBValidKey, unknown])[] }[];
}

/** Reads the whole database into the keeper, so that the next flow begins with the demo set without opening it anew. */
const keepDemo = (keeper: Page, hrefs: DemoKept['hrefs']) =>
  keeper.evaluate(async (where) => {
    const done = <T>(r: IDBRequest<T>) =>
      new Promise<T>((yes, no) => ((r.onsuccess = () => yes(r.result)), (r.onerror = () => no(r.error))));
    const db = await done(indexedDB.open('gristmill'));
    const tables = await Promise.all(
      [...db.objectStoreNames].map(async (name) => {
        const store = db.transaction(name).objectStore(name);
        const [keys, values] = await Promise.all([done(store.getAllKeys()), done(store.getAll())]);
        return { name, entries: keys.map((k, i) => [k, values[i] as unknown] as const) };
      }),
    );
    (window as unknown as { demo?: DemoKept }).demo = { hrefs: where, version: db.version, tables };
    db.close();
  }, hrefs);

/** Puts the demo set into an empty storage and says where its joints are; undefined where it was not kept yet. */
const putDemo = (keeper: Page) =>
  keeper.evaluate(async () => {
    const { demo } = window as unknown as { demo?: DemoKept };
    if (!demo) return undefined;
    const request = indexedDB.open('gristmill', demo.version);
    request.onupgradeneeded = () => demo.tables.forEach((t) => request.result.createObjectStore(t.name));
    const db = await new Promise<IDBDatabase>(
      (yes, no) => ((request.onsuccess = () => yes(request.result)), (request.onerror = () => no(request.error))),
    );
    const tx = db.transaction([...db.objectStoreNames], 'readwrite');
    for (const t of demo.tables) for (const [key, value] of t.entries) tx.objectStore(t.name).put(value, key);
    await new Promise((yes, no) => ((tx.oncomplete = yes), (tx.onerror = no)));
    db.close();
    return demo.hrefs;
  });

/** Opens the demo set by its button on the empty shelf. */
export async function openDemoSet(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Open the demo set' }).click();
  await expect(page.getByRole('link', { name: 'Body yaw' })).toBeVisible();
}

/** A view of a demo joint: the first flow of a worker opens the set by its button, the others find it in storage. */
export async function openDemo(page: Page, view = 'brief', joint = 'Body yaw'): Promise<void> {
  const keeper = page
    .context()
    .pages()
    .find((p) => p.url().endsWith('/health'));
  const fresh = page.url() === 'about:blank';
  let hrefs = keeper && fresh ? await putDemo(keeper) : undefined;
  if (!hrefs) {
    await openDemoSet(page);
    hrefs = await page
      .getByRole('link')
      .evaluateAll((links) =>
        Object.fromEntries(
          links
            .map((a) => [a.textContent.trim(), a.getAttribute('href') ?? ''] as const)
            .filter(([, href]) => href.startsWith('/joint/')),
        ),
      );
    if (keeper && fresh) await keepDemo(keeper, hrefs);
  }
  const href = Object.entries(hrefs).find(([name]) => name.includes(joint))![1];
  await page.goto(href.replace(/\/[a-z]*$/, `/${view.toLowerCase()}`));
  await expect(page.locator('[data-limit="torque"] [data-figure]')).toContainText(/N\b/);
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
      ? { type: 'tag' as const, values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] }
      : { type: 'rule' as const, values: ['color-contrast'] };
  // The script is half a megabyte: a page that has it already is not given it again.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  // There are no frames to put results of together, a selector of every element that passed costs more than its check,
  // and no rule that is asked for here reads style sheets.
  const violations = await page.evaluate(
    async (options) => {
      const here = (window as unknown as { axe: typeof axe }).axe;
      const found = await here.run(document, options);
      // What is as wide as its time may be small where the list beside it does the same (WCAG 2.5.8, equivalent).
      const counts = (v: string, html: string) => v !== 'target-size' || !html.includes('data-listed=');
      return found.violations
        .map((v) => ({ ...v, nodes: v.nodes.filter((n) => counts(v.id, n.html)) }))
        .filter((v) => v.nodes.length > 0)
        .map(
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

/** A blank joint of some name, from the shelf. */
export async function blankJoint(page: Page, name = 'New joint'): Promise<void> {
  await page.getByRole('button', { name: 'Blank joint' }).click();
  const form = page.getByRole('form', { name: 'Blank joint' });
  await form.getByRole('textbox', { name: 'What is the joint called?' }).fill(name);
  await form.getByRole('button', { name: 'Make it' }).click();
}

/** Types into a quantity field and accepts with Enter. */
export async function type(page: Page, label: string | RegExp, text: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label, exact: typeof label === 'string' });
  await field.fill(text);
  await field.press('Enter');
}

export const saved = (page: Page) =>
  expect(page.locator('[data-save]')).toHaveAttribute('data-save', 'saved', { timeout: 8_000 });
