import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { createApp } from './app.ts';
import { listen } from './listen.ts';

const folder = fileURLToPath(new URL('../../web/dist', import.meta.url));
const wanted = Number(process.env['PORT'] ?? 4170);

if (!existsSync(`${folder}/index.html`)) {
  console.error('The app is not built yet. Run `npm run build`, or `npm run demo` which does both.');
  process.exit(1);
}
if (!Number.isInteger(wanted) || wanted < 1 || wanted > 65535) {
  console.error(`PORT is “${process.env['PORT']}”, which is not a port. Use a whole number from 1 to 65535.`);
  process.exit(1);
}
const { server, port } = await listen(createApp(folder, process.env['RIG'] || undefined), wanted);
if (port !== wanted) console.log(`Port ${wanted} is taken; using ${port}.`);
console.log(`Gristmill is ready at http://127.0.0.1:${port}/`);
/** How long what is being answered may take to end, ms. */
const GRACE = 500;
const stop = (): void => {
  setTimeout(() => process.exit(0), GRACE).unref();
  server.close(() => process.exit(0));
  server.closeAllConnections();
};
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, stop);
