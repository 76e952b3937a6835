import { expect, test } from '../support/shoal'
import { Firefox } from './bidi'

test('in Debian’s Firefox the demo is opened and played, an effect is added, a row is printed', async ({ shoal }) => {
  test.setTimeout(240_000)
  const f = await Firefox.launch(process.env.FIREFOX ?? 'firefox-esr', 1280, 800)
  const says = async (selector: string) =>
    String(await f.evaluate(`document.querySelector(${JSON.stringify(selector)})?.textContent ?? ''`))
  const seen = (selector: string, what: string) => expect.poll(() => says(selector), { message: what, timeout: 60_000 })
  try {
    await f.open(`${shoal.url}/project/slackwater`)
    await seen('[aria-label="The first minute"]', 'the board is there').toContain('Hear Slack Water')
    await f.press('[aria-label="The first minute"] .btn-primary')
    await seen('[data-testid=clock]', 'the song is heard').toMatch(/0:0[3-9]/)
    const load = await f.evaluate(`document.querySelector('[data-testid=load]')?.textContent ?? 'not said'`)
    const silent = (await says('body')).includes('There is no sound output')

    const marimba = '[role=group][aria-label="Marimba"] button[aria-label="Marimba"]'
    await f.press(marimba)
    await f.type('/')
    await expect.poll(() => f.evaluate(`document.activeElement?.getAttribute('aria-label')`)).toBe('Search effects')
    await f.type('trim')
    await f.type('Enter')
    await expect.poll(() => f.evaluate(`document.activeElement?.getAttribute('aria-label')`), 'a change carries a name').toBe('Your name')
    await f.type('Ada')
    await f.type('Enter')
    const trim = '[role=group][aria-label="Marimba"] [data-stage][aria-label="Trim"]'
    await expect.poll(() => f.evaluate(`!!document.querySelector(${JSON.stringify(trim)})`), 'the effect is there').toBe(true)

    await f.press(marimba)
    await f.type('p')
    await seen('section[aria-label=Bench]', 'what is to be printed').toContain('The whole song')
    await f.pressNamed('[role=dialog] button', 'Print')
    await seen('[aria-label=Status]', 'it is printed').toContain('printed to a new track')
    const which = await f.evaluate('navigator.userAgent')
    console.log(`${String(which)}: engine load ${String(load)}${silent ? ', without a sound output' : ''}`)
  } finally {
    await f.close()
  }
})
