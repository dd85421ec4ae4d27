import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createApp } from './app.ts';
import { listen } from './listen.ts';

/** Packed, the built app lies beside the server's one file; in the sources it lies where the build puts it. */
const here = dirname(fileURLToPath(import.meta.url));
const packed = join(here, 'app');
const folder = existsSync(join(packed, 'index.html')) ? packed : join(here, '../../web/dist');
const wanted = Number(process.env['PORT'] ?? 4170);
/** How it is started again, at another port. */
const command = folder === packed ? 'node gristmill.mjs' : 'npm run demo';
const end = (code: number, text: string): never => {
  (code ? console.error : console.log)(text);
  process.exit(code);
};

if (!existsSync(join(folder, 'index.html')))
  end(1, 'The app is not built yet. Run `npm run build`, or `npm run demo` which does both.');
if (!Number.isInteger(wanted) || wanted < 1 || wanted > 65535)
  end(1, `PORT is “${process.env['PORT']}”, which is not a port. Use a whole number from 1 to 65535.`);

const made = await listen(createApp(folder, process.env['RIG'] || undefined), wanted);
const address = `http://127.0.0.1:${wanted}/`;
if (made.state === 'own') end(0, `Gristmill ${made.version} is running already, at ${address}`.replace('  ', ' '));
if (made.state === 'taken')
  end(
    1,
    `Port ${wanted} is taken by another program. End that one, or start Gristmill at another port:\n\n` +
      `  PORT=${wanted === 65535 ? 4171 : wanted + 1} ${command}\n\n` +
      `Joints live in the browser by address: at another port the shelf is another one. Those of here are not lost; ` +
      `they are there again at port ${wanted}, and *Export everything* takes them along.`,
  );
console.log(`Gristmill is ready at ${address}`);
/** How long what is being answered may take to end, ms. */
const GRACE = 500;
const stop = (): void => {
  if (made.state !== 'listening') return;
  setTimeout(() => process.exit(0), GRACE).unref();
  made.server.close(() => process.exit(0));
  made.server.closeAllConnections();
};
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, stop);
