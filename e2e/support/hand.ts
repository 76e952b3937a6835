import type { Locator, Page } from '@playwright/test'

type At = { x: number; y: number }

/** A hand that counts what it does: clicks, drags, picks, keys, and values that are typed (with the Enter behind them).
    Pointing at something is not counted. */
export class Hand {
  count = 0

  constructor(readonly page: Page) {}

  async click(at: Locator, more: Parameters<Locator['click']>[0] = {}) {
    this.count++
    await at.click(more)
  }

  /** The other button, and what is chosen of the menu. */
  async menu(at: Locator, choice: string, position?: At) {
    await this.click(at, { button: 'right', position })
    await this.click(this.page.getByRole('menuitem', { name: choice }).first())
  }

  async double(at: Locator, position: At) {
    this.count++
    await at.dblclick({ position })
  }

  async key(key: string) {
    this.count++
    await this.page.keyboard.press(key)
  }

  /** Types where the focus is, and Enter. */
  async type(text: string) {
    this.count++
    await this.page.keyboard.type(text)
    await this.page.keyboard.press('Enter')
  }

  /** Types into a list until that is what Enter takes, or Enter with another key. */
  async find(text: string, option: string | RegExp, enter = 'Enter') {
    this.count++
    await this.page.keyboard.type(text)
    await this.page.getByRole('option', { name: option, selected: true }).waitFor()
    await this.page.keyboard.press(enter)
  }

  /** Types where the focus is: by key only, each press counts, but a text is one. */
  async text(text: string) {
    this.count++
    await this.page.keyboard.type(text)
  }

  async drag(from: Locator, a: At, to: Locator, b: At, keys: string[] = []) {
    this.count++
    await from.scrollIntoViewIfNeeded()
    const [p, q] = [(await from.boundingBox())!, (await to.boundingBox())!]
    for (const k of keys) await this.page.keyboard.down(k)
    await this.page.mouse.move(p.x + a.x, p.y + a.y)
    await this.page.mouse.down()
    await this.page.mouse.move(q.x + b.x - 20, q.y + b.y, { steps: 4 })
    await this.page.mouse.move(q.x + b.x, q.y + b.y, { steps: 2 })
    await this.page.mouse.up()
    for (const k of keys) await this.page.keyboard.up(k)
  }

  /** Drags what can be carried, such as a send. */
  async carry(from: Locator, to: Locator) {
    this.count++
    await from.dragTo(to)
  }
}
