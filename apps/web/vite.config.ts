import { basename } from 'node:path';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** Reads of the API that are kept for when the server is away; streams and files for saving are not. */
/** What was asked for by a text that somebody typed is not kept. */
const KEPT = /\/api\/v1\/(?:units|repairs|drawer|workshop|units\/[0-9a-f-]{36})(?:\?(?!.*find=).*)?$/;
const PICTURES = /\/api\/v1\/units\/[0-9a-f-]{36}\/photos\/[0-9a-f-]{36}(?:\?.*)?$/;
/** The server is asked first; what is kept is shown when it has not answered by then, s. */
const PATIENCE_S = 4;
const DAYS = 24 * 3600;

export default defineConfig({
  plugins: [
    react(),
    VitePWA({
      // The page says that a new version is here, and takes it when nothing is typed.
      registerType: 'prompt',
      injectRegister: false,
      manifest: {
        name: 'Zemble',
        short_name: 'Zemble',
        description: 'A bench companion for audio circuits.',
        start_url: '/',
        display: 'standalone',
        background_color: '#fffdf6',
        theme_color: '#fffdf6',
        icons: [
          { src: '/mark-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/mark-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/mark-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
        ],
      },
      workbox: {
        // Without the fonts of scripts that the page is not written in.
        globPatterns: ['**/*.{js,css,html,svg,png,woff2}'],
        globIgnores: ['**/*-{cyrillic,cyrillic-ext,greek,greek-ext,vietnamese}-*.woff2'],
        // A first visit is kept too, so that the page is there without the server from the start.
        clientsClaim: true,
        maximumFileSizeToCacheInBytes: 5_000_000,
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        cleanupOutdatedCaches: true,
        runtimeCaching: [
          {
            // Pictures stand by themselves, so that they push no unit out.
            urlPattern: PICTURES,
            handler: 'NetworkFirst',
            options: {
              cacheName: 'bench-photos',
              networkTimeoutSeconds: PATIENCE_S,
              expiration: { maxEntries: 200, maxAgeSeconds: 30 * DAYS },
              cacheableResponse: { statuses: [200] },
            },
          },
          {
            urlPattern: KEPT,
            handler: 'NetworkFirst',
            options: {
              cacheName: 'bench',
              networkTimeoutSeconds: PATIENCE_S,
              expiration: { maxEntries: 200, maxAgeSeconds: 30 * DAYS },
              cacheableResponse: { statuses: [200] },
            },
          },
        ],
      },
    }),
  ],
  build: {
    // Small fonts would be inlined as data, which the page's policy blocks.
    assetsInlineLimit: (file) => (file.endsWith('.woff2') ? false : undefined),
    chunkSizeWarningLimit: 1200,
  },
  css: {
    // The room and the name: readable in the page, and the same in every build.
    modules: {
      generateScopedName: (name, file) =>
        `${basename(file, '.module.css').split('.')[0]}-${name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`)}`,
    },
  },
  worker: { format: 'es' },
  // The page keeps its own address before the server, which asks that both are one.
  server: { proxy: { '/api': { target: 'http://127.0.0.1:4780', changeOrigin: false } } },
});
