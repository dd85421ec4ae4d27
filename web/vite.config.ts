import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import express from 'express';
import { defineConfig, type Plugin } from 'vite';
import { compression } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';
import { tsImport } from 'tsx/esm/api';
import { shippedOf, writeNotices } from '../scripts/licences/notices.ts';
import packageFile from '../package.json' with { type: 'json' };

/**
 * What fields of a file mean is told by the schema that ships as JSON (`npm run schema`), not by the page: their texts stay
 * out of what a first visit loads.
 */
const withoutFieldTexts = (): Plugin => ({
  name: 'gristmill-without-field-texts',
  apply: 'build',
  enforce: 'pre',
  transform: (code, id) =>
    /core\/src\/(schema|stage)\/.*\.ts$/.test(id)
      ? code
          .replace(/,\s*v\.description\(\s*(?:'(?:[^'\\\n]|\\.)*'|`[^`$]*`),?\s*\)/g, '')
          .replace(/^(\s*)says:\s*'(?:[^'\\\n]|\\.)*'/gm, "$1says: ''")
      : undefined,
});

/** Files of packages that end up in the build without being imported by it. */
const ALSO = ['tailwindcss', 'workbox-core', 'workbox-precaching', 'workbox-routing', 'workbox-strategies'].map(
  (name) => new URL(`../node_modules/${name}/package.json`, import.meta.url).pathname,
);
const used = new Set(ALSO);

/** Remembers what the page and its workers are built of, and writes what their makers want said. */
const notices = (writes: boolean): Plugin => ({
  name: 'gristmill-notices',
  apply: 'build',
  generateBundle() {
    for (const id of this.getModuleIds()) used.add(id);
    if (writes) this.emitFile({ type: 'asset', fileName: 'notices.txt', source: writeNotices(shippedOf(used)) });
  },
});

/** The bridge to a rig, as the server has it, while the app is worked on. */
const rigInDevelopment = (): Plugin => ({
  name: 'gristmill-rig',
  configureServer: async ({ middlewares }) => {
    const { rigEvents } = (await tsImport(
      '../server/src/rig.ts',
      import.meta.url,
    )) as typeof import('../server/src/rig.ts');
    const app = express();
    app.get('/rig/events', rigEvents(process.env['RIG'] || undefined));
    middlewares.use(app);
  },
});

/** What makes the app installable, and lets it work without its server once it has been loaded, exact bodies included. */
const offline = () =>
  VitePWA({
    registerType: 'prompt',
    injectRegister: false,
    manifest: {
      name: 'Gristmill',
      short_name: 'Gristmill',
      description: packageFile.description,
      start_url: '/',
      display: 'standalone',
      background_color: '#f5f0e8',
      theme_color: '#f5f0e8',
      icons: [
        { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
        { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
        { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
        { src: '/icon-maskable.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
      ],
    },
    workbox: {
      globPatterns: ['**/*.{js,css,html,svg,woff2,wasm,txt}'],
      // The kernel of exact bodies has 23 MB; without it there would be no STEP away from the server.
      maximumFileSizeToCacheInBytes: 32e6,
      navigateFallback: '/index.html',
      navigateFallbackDenylist: [/^\/health/, /^\/rig\//],
      dontCacheBustURLsMatching: /^assets\//,
      cleanupOutdatedCaches: true,
      sourcemap: false,
    },
  });

export default defineConfig(({ command }) => ({
  define: { __VERSION__: JSON.stringify(packageFile.version) },
  plugins: [
    withoutFieldTexts(),
    notices(true),
    rigInDevelopment(),
    react(),
    tailwindcss(),
    offline(),
    // Squeezed once here, not at each request.
    compression({ algorithms: ['gzip'], include: /\.(js|css|wasm)$/, threshold: 1024 }),
  ],
  worker: { format: 'es', plugins: () => [withoutFieldTexts(), notices(false)] },
  // A build says nothing where nothing is wrong; where it is worked on, the address is wanted.
  logLevel: command === 'build' ? 'warn' : 'info',
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 900 },
}));
