import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { compression } from 'vite-plugin-compression2';

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

export default defineConfig({
  plugins: [
    withoutFieldTexts(),
    react(),
    tailwindcss(),
    // Squeezed once here, not at each request.
    compression({ algorithms: ['gzip'], include: /\.(js|css|wasm)$/, threshold: 1024 }),
  ],
  worker: { format: 'es', plugins: () => [withoutFieldTexts()] },
  logLevel: 'warn',
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 900 },
});
