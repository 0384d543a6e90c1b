import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), tailwindcss()],
  worker: { format: 'es' },
  build: {
    target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 900,
    rolldownOptions: {
      // The reader of text looks for its data by this very name; its folder carries the version of the data instead.
      output: { assetFileNames: ({ names }) => (names[0]?.endsWith('.traineddata.gz') ? 'assets/text-data-1.0.0/[name][extname]' : 'assets/[name]-[hash][extname]') }
    }
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4180' } }
})
