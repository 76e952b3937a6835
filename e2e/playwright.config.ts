import { defineConfig } from '@playwright/test'
import { windowed } from './support/profile'

const chromium = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--autoplay-policy=no-user-gesture-required',
  ],
}

export default defineConfig({
  workers: 1,
  retries: process.env.CI ? 1 : 0,
  timeout: 150_000,
  expect: { timeout: 25_000 },
  outputDir: 'results',
  reporter: [['list']],
  use: {
    launchOptions: chromium,
    ...windowed,
  },
  projects: [
    { name: 'journeys', testDir: 'journeys' },
    { name: 'firefox', testDir: 'smoke' },
    { name: 'bench', testDir: 'bench', timeout: 120_000 },
    { name: 'screenshots', testDir: 'screenshots', timeout: 480_000, use: { actionTimeout: 90_000 } },
  ],
})
