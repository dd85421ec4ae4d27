import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    // Squeezed once here, not at each request.
    compression({ algorithms: ['gzip'], include: /\.(js|css|wasm)$/, threshold: 1024 }),
  ],
  worker: { format: 'es' },
  logLevel: 'warn',
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 900 },
});
