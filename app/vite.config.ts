import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import vuetify from 'vite-plugin-vuetify';

/** What every page begins with comes in one file: a score of small ones take longer to ask for than to read. */
const codeSplitting = { groups: [{ name: 'start', tags: ['$initial' as const] }] };

export default defineConfig({
  plugins: [
    vue(),
    vuetify({ autoImport: true }),
    VitePWA({
      // A newer version waits until the person says so; the app registers its worker itself (shell/useOffline.ts).
      registerType: 'prompt',
      injectRegister: null,
      manifest: {
        name: 'Yes Clear',
        short_name: 'Yes Clear',
        description: 'Reverse-osmosis and deionization systems, from tap to logged reading.',
        theme_color: '#F3F0E8',
        background_color: '#F3F0E8',
        display: 'standalone',
        icons: [
          { src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' },
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/icon-maskable.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
        ],
      },
      // The work is done where there is no signal: the whole app is kept in the browser.
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,png,woff,woff2,json}'],
        // The very first visit already works without a signal once the app is kept, with no reload in between.
        clientsClaim: true,
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
      },
    }),
  ],
  worker: { format: 'es', rolldownOptions: { output: { codeSplitting } } },
  build: { target: 'es2022', reportCompressedSize: false, chunkSizeWarningLimit: 900, rolldownOptions: { output: { codeSplitting } } },
});
