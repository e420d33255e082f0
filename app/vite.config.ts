import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import vuetify from 'vite-plugin-vuetify';

export default defineConfig({
  plugins: [
    vue(),
    vuetify({ autoImport: true }),
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: 'script-defer',
      manifest: {
        name: 'Yes Clear',
        short_name: 'Yes Clear',
        description: 'Reverse-osmosis and deionization systems, from tap to logged reading.',
        theme_color: '#F3F0E8',
        background_color: '#F3F0E8',
        display: 'standalone',
        icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' }],
      },
      // The work is done where there is no signal: the whole app is kept in the browser.
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2,json}'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
      },
    }),
  ],
  worker: { format: 'es' },
  build: { target: 'es2022', reportCompressedSize: false, chunkSizeWarningLimit: 900 },
});
