import { type BrowserContext, chromium, test as base } from '@playwright/test'
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** How every window begins. */
export const windowed = {
  viewport: { width: 1280, height: 800 },
  colorScheme: 'light' as const,
  acceptDownloads: true,
  permissions: ['clipboard-read', 'clipboard-write'],
}

interface Worker {
  /** Where Shoal is found in every journey: what is compiled is kept for an address. */
  port: number
  /** A browser that keeps the compiled engine, which takes seconds to make, from journey to journey, and nothing else. */
  profile: BrowserContext
}

const aFreePort = () =>
  new Promise<number>((resolve) => {
    const s = createServer().listen(0, '127.0.0.1', () => {
      const { port } = s.address() as { port: number }
      s.close(() => resolve(port))
    })
  })

const kept = 'cookies,file_systems,indexeddb,local_storage,service_workers,cache_storage'

/** Lets a browser be as on its first day but for what it has compiled. */
async function anew(context: BrowserContext, port: number) {
  const [rest, ...others] = context.pages()
  for (const page of others) await page.close()
  await context.unrouteAll({ behavior: 'ignoreErrors' })
  await context.setOffline(false)
  await context.clearPermissions()
  const devtools = await context.newCDPSession(rest!)
  await devtools.send('Storage.clearDataForOrigin', { origin: `http://127.0.0.1:${port}`, storageTypes: kept })
  await devtools.detach()
}

export const test = base.extend<{ context: BrowserContext }, Worker>({
  port: [async ({}, use) => use(await aFreePort()), { scope: 'worker' }],
  profile: [
    async ({ launchOptions }, use) => {
      const folder = mkdtempSync(join(tmpdir(), 'shoal-browser-'))
      const context = await chromium.launchPersistentContext(folder, { ...launchOptions, ...windowed, permissions: [] })
      await use(context)
      await context.close()
      rmSync(folder, { recursive: true, force: true, maxRetries: 3 })
    },
    { scope: 'worker' },
  ],
  context: async ({ profile, port, permissions }, use) => {
    await profile.grantPermissions(permissions ?? [])
    await use(profile)
    await anew(profile, port)
  },
})
