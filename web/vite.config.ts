import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { outDir: 'dist', target: 'es2024', chunkSizeWarningLimit: 900 },
  worker: { format: 'es' },
  server: { proxy: { '/api': { target: 'http://127.0.0.1:4680', ws: true } } },
  test: { environment: 'jsdom', include: ['src/**/*.test.{ts,tsx}'] },
})
