import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  worker: { format: 'es' },
  logLevel: 'warn',
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 900 },
});
