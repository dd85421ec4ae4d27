import { spawn } from 'node:child_process';
import { chromium } from '@playwright/test';
const srv = spawn('npx', ['tsx', 'server/src/main.ts'], { env: { ...process.env, PORT: '4777' }, detached: true, stdio: 'ignore' });
await new Promise((r) => setTimeout(r, 6000));
const b = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox', '--disable-gpu'] });
const page = await b.newPage({ viewport: { width: 1280, height: 800 } });
try {
  await page.goto('http://127.0.0.1:4777/');
  await page.getByRole('button', { name: 'Open the demo set' }).click();
  await page.getByRole('link', { name: /Body yaw/ }).first().click();
  await page.waitForTimeout(3000);
  const url = page.url(); await page.goto(url.replace(/\/(brief|line|[a-z]+)$/, '/line')); await page.waitForTimeout(2500);
  await page.getByRole('tab', { name: /Find lines/ }).or(page.getByRole('link', { name: /Find lines/ })).or(page.getByRole('button',{name:/^Find lines/})).first().click();
  await page.waitForTimeout(1500);
  console.log(await page.getByRole('status').allInnerTexts());
  for (let k = 0; k < 3; k++) {
    const t = Date.now();
    await page.getByRole('button', { name: /^Find (lines|again)/ }).first().click();
    await page.getByText('Below: what a first look found').waitFor({ timeout: 60000 }); const first = Date.now() - t;
    await page.getByText(/lines out of/).waitFor({ timeout: 120000 });
    console.log('first', first, 'whole', Date.now() - t, (await page.getByRole('status').allInnerTexts())[0]);
  }
  await page.screenshot({ path: '/tmp/find.png' });
} catch (e) { console.log(String(e).slice(0, 600)); await page.screenshot({ path: '/tmp/find.png' }); }
await b.close(); process.kill(-srv.pid!);
