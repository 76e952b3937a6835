import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

/** A running Shoal, for whoever works on the page. */
const shoal = process.env.SHOAL ?? 'http://127.0.0.1:4680'

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { outDir: 'dist', target: 'es2024', chunkSizeWarningLimit: 900 },
  worker: { format: 'es' },
  server: {
    proxy: { '/api': { target: shoal, ws: true, changeOrigin: true, headers: { origin: shoal } } },
    // what the ring needs, as the server says it
    headers: { 'Cross-Origin-Opener-Policy': 'same-origin', 'Cross-Origin-Embedder-Policy': 'require-corp' },
  },
  test: { environment: 'jsdom', include: ['src/**/*.test.{ts,tsx}'] },
})
