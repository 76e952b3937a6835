import { enter, expect, row, stagesOf, test } from '../support/shoal'

test('two windows see each other at once, undo is each own, and the same control ends equal in both', async ({ board, shoal, browser }) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const other = await context.newPage()
  await enter(other, shoal, 'Odile')
  await expect(board.getByLabel('Odile is here')).toBeVisible()

  await board.getByLabel('Mute Marimba').click()
  const seen = Date.now()
  await expect(other.getByLabel('Mute Marimba')).toHaveAttribute('aria-pressed', 'true', { timeout: 1000 })
  expect(Date.now() - seen).toBeLessThan(1000)
  await expect(other.getByTestId('last-change')).toHaveText('Ada: Mute Marimba')

  await other.getByLabel('Mute Choir').click()
  await expect(board.getByLabel('Mute Choir')).toHaveAttribute('aria-pressed', 'true')
  await board.keyboard.press('Control+z') // takes back Ada's, not Odile's
  await expect(other.getByLabel('Mute Marimba')).toHaveAttribute('aria-pressed', 'false')
  await expect(board.getByLabel('Mute Choir')).toHaveAttribute('aria-pressed', 'true')
  await board.keyboard.press('Control+Shift+z')
  await expect(other.getByLabel('Mute Marimba')).toHaveAttribute('aria-pressed', 'true')

  // both move the same control; both windows end at one value
  const sliders = [board, other].map((p) => p.getByRole('slider', { name: 'Level of Handbells' }))
  for (const s of sliders) await s.focus()
  for (let i = 0; i < 6; i++) {
    await sliders[0]!.press('ArrowRight')
    await sliders[1]!.press('ArrowLeft')
  }
  await board.waitForTimeout(1200)
  await expect
    .poll(async () => {
      const [a, b] = await Promise.all(sliders.map((s) => s.getAttribute('aria-valuenow')))
      return a === b
    })
    .toBe(true)

  // solo belongs to a window
  await board.getByLabel('Solo Choir').click()
  await expect(other.getByLabel('Solo Choir')).toHaveAttribute('aria-pressed', 'false')

  await board.reload()
  await expect(board.getByLabel('Mute Choir')).toHaveAttribute('aria-pressed', 'true')
  await context.close()
})

test('a change to something that somebody just removed is refused in words', async ({ board, shoal }) => {
  await stagesOf(board, 'Marimba').nth(1).click()
  const p = await (await board.request.get(`${shoal.url}/api/projects/slackwater`)).json()
  const id = p.project.channels[0].chain.nodes[1].stage.id
  const remove = { label: 'Remove', changes: [{ type: 'node.remove', do: { id } }] }
  await board.request.post(`${shoal.url}/api/projects/slackwater/changes`, { data: remove })
  const again = await board.request.post(`${shoal.url}/api/projects/slackwater/changes`, { data: remove })
  expect(again.status()).toBe(422)
  expect(again.headers()['content-type']).toContain('application/problem+json')
  expect((await again.json()).detail).toContain('somebody has removed it')
  await expect(stagesOf(board, 'Marimba')).toHaveCount(2)
  await expect(row(board, 'Marimba')).toBeVisible()
})
