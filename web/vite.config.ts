import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** What every page stands on, in one file: it is packed better than in several. */
const FRAME = /node_modules\/(react|react-dom|scheduler|react-router|@tanstack\/(query-core|react-query))\//;
/** But what the Library has no use for. */
const LATER = /\/(mutationObserver|useMutation)\.js$/;

/** How pages ask the server, likewise. */
const DATA =
  /\/web\/data\/(api|call|keys|stale|queries|(account|assignment|class|find|gather|library|source)-queries)\.ts$/;

/** Small parts of the interface that the Library has anyway, likewise. */
const PARTS =
  /\/web\/ui\/(Alert|FileButton|MarkedText|Menu|Sign|SourceRow|State|Strand|use-address-params|use-latest|when)\.tsx?$/;

export default defineConfig({
  plugins: [react(), tailwind()],
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    manifest: true,
    assetsInlineLimit: 0,
    target: 'es2022',
    sourcemap: true,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'frame', test: (id) => FRAME.test(id) && !LATER.test(id) },
            { name: 'data', test: DATA },
            { name: 'parts', test: PARTS },
          ],
        },
      },
    },
  },
  worker: { format: 'es' },
  server: { proxy: { '/api': 'http://127.0.0.1:4800', '/snapshots': 'http://127.0.0.1:4800' } },
});
