import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwind()],
  build: { outDir: 'dist', emptyOutDir: true, manifest: true, assetsInlineLimit: 0, target: 'es2022', sourcemap: true },
  worker: { format: 'es' },
  server: { proxy: { '/api': 'http://127.0.0.1:4800', '/snapshots': 'http://127.0.0.1:4800' } },
});
