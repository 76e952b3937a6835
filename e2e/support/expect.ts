import { expect as base, type Locator } from '@playwright/test'

/** Whether something is seen is waited for without a word: what the runner has by itself describes the whole page in words each
    time that it has looked in vain, which takes the page a tenth of a second; where nothing comes, that is still said. */
export const expect = base.extend({
  async toBeVisible(seen: Locator, options: { timeout?: number } = {}) {
    const timeout = options.timeout ?? this.timeout
    if (!this.isNot) await seen.waitFor({ state: 'visible', timeout }).catch(() => undefined)
    const said = { ...options, timeout: this.isNot ? timeout : 1000 }
    const seenNow = this.isNot ? base(seen).not.toBeVisible(said) : base(seen).toBeVisible(said)
    const message = await seenNow.then(
      () => '',
      (e: Error) => e.message,
    )
    return { pass: this.isNot ? message !== '' : message === '', message: () => message, name: 'toBeVisible' }
  },
})
