import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'

/* What can be measured of how a page looks: sizes of type, of what is pressed, contrast. */

/** Texts below so many pixels, as they are drawn. */
export const smallTexts = (page: Page, least: number) =>
  page.evaluate((least) => {
    const found = new Set<string>()
    for (const el of document.querySelectorAll('body *')) {
      const own = [...el.childNodes].some((n) => n.nodeType === Node.TEXT_NODE && n.textContent!.trim())
      if (!own || !el.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue
      const box = el.getBoundingClientRect()
      if (box.width < 2 || box.height < 2) continue // for those who listen, not seen
      const size = parseFloat(getComputedStyle(el).fontSize)
      if (size < least - 0.01) found.add(`${size} px: ${el.textContent!.trim().slice(0, 40)}`)
    }
    return [...found]
  }, least)

/** What can be pressed and is smaller than so many pixels. A label is part of its switch. */
export const smallTargets = (page: Page, least: number) =>
  page.evaluate((least) => {
    const pressed =
      'button, a[href], input, select, summary, [role=slider], [role=tab], [role=separator], [role=button], [role=menuitem], [data-clip]'
    const found = new Set<string>()
    for (const el of document.querySelectorAll(pressed)) {
      if (!el.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue
      if ((el as HTMLInputElement).disabled) continue
      const label = el.closest('label')
      let box = el.getBoundingClientRect()
      if (label && (el as HTMLInputElement).type !== 'text') box = label.getBoundingClientRect()
      if (box.width <= 1 && box.height <= 1) continue // for those who listen, not seen
      // how wide a clip is says how long it sounds: seen from far away it is small, and zooming makes it larger
      const width = el.matches('[data-clip]') ? least : box.width
      if (Math.min(width, box.height) >= least - 0.5) continue
      const name = el.getAttribute('aria-label') ?? el.textContent?.trim() ?? ''
      found.add(`${box.width.toFixed(0)} x ${box.height.toFixed(0)}: ${el.tagName} ${name.slice(0, 50)}`)
    }
    return [...found]
  }, least)

/** Words that end in dots because there is no room for them. */
export const cutTexts = (page: Page) =>
  page.evaluate(() => {
    const found = new Set<string>()
    for (const el of document.querySelectorAll('body *')) {
      const css = getComputedStyle(el)
      const cuts = css.textOverflow === 'ellipsis' || css.webkitLineClamp !== 'none'
      if (!cuts || el.tagName === 'INPUT' || css.overflowX === 'visible' || !el.checkVisibility({ visibilityProperty: true })) continue
      const by = css.webkitLineClamp === 'none' ? el.scrollWidth - el.clientWidth : el.scrollHeight - el.clientHeight
      if (by > 2) found.add(`${el.tagName} ${el.textContent!.trim().slice(0, 50)}`)
    }
    return [...found]
  })

/** The text spacing that a reader may ask for (WCAG 2.2, 1.4.12), as far as it is about widths. */
export const spaceOut = (page: Page) =>
  page.evaluate(() => {
    const wide = new CSSStyleSheet() // the page's policy takes no style tag
    wide.replaceSync('* { letter-spacing: 0.12em !important; word-spacing: 0.16em !important }')
    document.adoptedStyleSheets.push(wide)
  })

/** What axe finds wrong in a part of the page, by rule and place. */
export async function axeFinds(page: Page, part: string): Promise<string[]> {
  const found = await new AxeBuilder({ page }).include(part).withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']).analyze()
  return found.violations.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 130)}`))
}

/** The relative luminance of the brightest square of a page, so many pixels wide: 0 is black, 1 white. */
export async function brightest(page: Page, side: number): Promise<number> {
  const png = (await page.screenshot()).toString('base64')
  return page.evaluate(
    async ([png, side]) => {
      const bytes = Uint8Array.from(atob(png), (c) => c.charCodeAt(0))
      const image = await createImageBitmap(new Blob([bytes], { type: 'image/png' }))
      const canvas = new OffscreenCanvas(image.width, image.height)
      const at = canvas.getContext('2d')!
      at.drawImage(image, 0, 0)
      const linear = (v: number) => (v <= 10.31 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4)
      let most = 0
      for (let y = 0; y + side <= image.height; y += side / 2)
        for (let x = 0; x + side <= image.width; x += side / 2) {
          const { data } = at.getImageData(x, y, side, side)
          let sum = 0
          for (let i = 0; i < data.length; i += 4)
            sum += 0.2126 * linear(data[i]!) + 0.7152 * linear(data[i + 1]!) + 0.0722 * linear(data[i + 2]!)
          most = Math.max(most, sum / side / side)
        }
      return most
    },
    [png, side] as const,
  )
}
