import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  build: {
    // Small fonts would be inlined as data, which the page's policy blocks.
    assetsInlineLimit: (file) => (file.endsWith('.woff2') ? false : undefined),
    chunkSizeWarningLimit: 1200,
  },
  worker: { format: 'es' },
  server: { proxy: { '/api': 'http://127.0.0.1:4780' } },
});
