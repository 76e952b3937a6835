import { readdirSync, readFileSync } from 'node:fs'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

/** A running Shoal, for whoever works on the page. */
const shoal = process.env.SHOAL ?? 'http://127.0.0.1:4680'

const src = `${import.meta.dirname}/src`
const tests = readdirSync(src, { recursive: true, encoding: 'utf8' })
  .filter((f) => /\.test\.tsx?$/.test(f))
  .map((f) => `src/${f}`)
/** Whoever puts another module in the place of one, or brings what modules keep for good, needs a page of its own; the
    others share one, which saves most of their time. */
const alone = tests.filter((f) =>
  /vi\.mock\(|IntersectionObserver/.test(readFileSync(`${src}/../${f}`, 'utf8')),
)

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { outDir: 'dist', target: 'es2024', chunkSizeWarningLimit: 900 },
  worker: { format: 'es' },
  server: {
    proxy: { '/api': { target: shoal, ws: true, changeOrigin: true, headers: { origin: shoal } } },
    // what the ring needs, as the server says it
    headers: { 'Cross-Origin-Opener-Policy': 'same-origin', 'Cross-Origin-Embedder-Policy': 'require-corp' },
  },
  test: {
    environment: 'jsdom',
    // how fast a machine is must fail no test
    testTimeout: 120_000,
    hookTimeout: 120_000,
    setupFiles: 'src/testing/after.ts',
    projects: [
      { extends: true, test: { name: 'together', include: tests, exclude: alone, isolate: false } },
      { extends: true, test: { name: 'alone', include: alone } },
    ],
  },
})
