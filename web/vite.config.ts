import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

import { sightFiles } from './build/sight-files.js';

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    sightFiles(),
    // The application itself is kept on the device after the first visit; answers of the server never are.
    VitePWA({
      // A new version waits until every page of the old one is closed: nothing changes under a running session.
      registerType: 'prompt',
      injectRegister: false,
      manifest: {
        name: 'Waxwing',
        short_name: 'Waxwing',
        description: 'The movement library and the floor of a personal trainer',
        theme_color: '#2b2725',
        background_color: '#f4efe8',
        display: 'standalone',
        icons: [{ src: '/waxwing.svg', sizes: 'any', type: 'image/svg+xml' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2,bin}'],
        // Fetched when first wanted, and kept when asked to.
        globIgnores: ['assets/sight-*/**'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        runtimeCaching: [
          {
            urlPattern: ({ url }) => url.pathname.startsWith('/assets/sight-'),
            handler: 'CacheFirst',
            // It is put there by the trainer's wish alone.
            options: { cacheName: 'waxwing-sight', plugins: [{ cacheWillUpdate: async () => null }] },
          },
        ],
        clientsClaim: true,
      },
    }),
  ],
  build: { target: 'es2022', manifest: true },
  server: { port: 4311, proxy: { '/api': { target: 'http://localhost:4310' } } },
});
