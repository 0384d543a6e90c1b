import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    react(),
    tailwindcss(),
    // The program itself is kept on the device, whole; what the server says is not its matter.
    VitePWA({
      filename: 'program-keeper.js',
      injectRegister: null,
      registerType: 'prompt',
      manifest: {
        name: 'Pasado',
        short_name: 'Pasado',
        description: 'Commissioning of home networks',
        start_url: '/',
        display: 'standalone',
        background_color: '#1D1822',
        theme_color: '#1D1822',
        icons: [{ src: '/strand.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }]
      },
      workbox: {
        // Old browsers' fonts are left out. The reader of printed labels is the largest part of it, and wanted in the cellar most of all.
        globPatterns: ['index.html', 'strand.svg', '**/*.{js,css,woff2,wasm,gz}'],
        maximumFileSizeToCacheInBytes: 12_000_000,
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//, /^\/stand-ins\//, /^\/pack/],
        cleanupOutdatedCaches: true,
        sourcemap: false
      }
    })
  ],
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    sourcemap: false,
    chunkSizeWarningLimit: 900,
    // What is loaded later brings what it needs by itself: naming all of it ahead keeps a slow page busy for a tenth of a second a part.
    modulePreload: { resolveDependencies: (_, parts, { hostType }) => (hostType === 'html' ? parts : []) },
    rolldownOptions: {
      // The reader of text looks for its data by this very name; its folder carries the version of the data instead.
      output: {
        assetFileNames: ({ names }) =>
          names[0]?.endsWith('.traineddata.gz')
            ? 'assets/text-data-1.0.0/[name][extname]'
            : 'assets/[name]-[hash][extname]'
      }
    }
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4180' } }
})
