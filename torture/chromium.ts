import { chromium, type Browser, type BrowserContext } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { browserUse } from '../e2e/browser.ts';

/** A Chromium of its own with a profile that outlives it, to be killed at any moment. */
export class Killable {
  readonly profile = mkdtempSync(join(tmpdir(), 'torture-'));
  private child: ChildProcess | undefined;
  private browser: Browser | undefined;

  /** Starts it on the profile as the last one left it. */
  async start(): Promise<BrowserContext> {
    const { executablePath, args } = browserUse.launchOptions;
    const child = spawn(
      executablePath,
      ['--headless', ...args, '--remote-debugging-port=0', `--user-data-dir=${this.profile}`, 'about:blank'],
      { detached: true, stdio: ['ignore', 'ignore', 'pipe'] },
    );
    this.child = child;
    const address = await new Promise<string>((done, fail) => {
      let said = '';
      child.stderr!.on('data', (x) => {
        said += String(x);
        const found = /ws:\/\/\S+/.exec(said);
        if (found) done(found[0]);
      });
      child.once('exit', () => fail(new Error(`the browser ended at once: ${said.slice(-500)}`)));
    });
    this.browser = await chromium.connectOverCDP(address);
    return this.browser.contexts()[0]!;
  }

  /** Processes of this browser of a type, by the group it was started in. */
  private members(type: string): number[] {
    return readdirSync('/proc')
      .filter((p) => /^\d+$/.test(p))
      .map(Number)
      .filter((pid) => {
        try {
          const group = Number(
            readFileSync(`/proc/${pid}/stat`, 'utf8')
              .replace(/^.*\) /, '')
              .split(' ')[2],
          );
          return group === this.child!.pid && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(`--type=${type}`);
        } catch {
          return false;
        }
      });
  }

  /** Ends the whole browser, or the processes that show its pages, without a word of warning. */
  async kill(what: 'browser' | 'renderer'): Promise<void> {
    if (what === 'renderer') {
      for (const pid of this.members('renderer')) process.kill(pid, 'SIGKILL');
      return;
    }
    const ended = new Promise((done) => this.child!.once('exit', done));
    process.kill(-this.child!.pid!, 'SIGKILL');
    await ended;
    await Promise.race([this.browser?.close().catch(() => undefined), new Promise((done) => setTimeout(done, 2000))]);
  }

  /** Ends it, if it runs, and throws its profile away. */
  async end(): Promise<void> {
    if (this.child?.exitCode === null && this.child.signalCode === null) await this.kill('browser');
    rmSync(this.profile, { recursive: true, force: true });
  }
}
