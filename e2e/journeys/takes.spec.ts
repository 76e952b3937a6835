import { enter, expect, row, test } from '../support/shoal'
import { framesOf, longer, record, recorded, stopped } from '../support/takes'

const voice = 'Tide table'

test('a take is recorded through the way in, and its untouched form is heard after it', async ({ board, shoal }) => {
  await board.getByRole('button', { name: voice, exact: true }).click()
  await record(board, 3)
  await expect(board.getByTestId('input-says')).toContainText('dB')
  await expect(board.getByRole('button', { name: 'Recording', exact: true })).toBeVisible()
  await stopped(board)
  const take = board.getByRole('listitem', { name: 'Take 1, treated, heard' })
  await expect(take).toContainText('LUFS')
  let now = await recorded(board, shoal)
  expect(now.takes).toHaveLength(1)
  expect(framesOf(now.takes[0]!)).toBeGreaterThan(3 * 48000)
  expect(now.takes[0]!.runs).toHaveLength(1)
  const clip = () => now.row(voice).clips.find((c) => c.take)
  expect(clip()!.enters).toBe('wayIn')

  await take.getByRole('button', { name: 'untouched' }).click()
  await expect(board.getByRole('listitem', { name: 'Take 1, untouched, heard' })).toBeVisible()
  now = await recorded(board, shoal)
  expect(clip()!.enters).toBeUndefined()
  expect(clip()!.audio).toBe(now.takes[0]!.untouched)

  await board.keyboard.press('Escape')
  await board.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(board.getByText('Undone: Take 1 of Tide table, untouched')).toBeVisible()
  await board.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(board.getByText('Undone: Record Tide table')).toBeVisible()
  now = await recorded(board, shoal)
  expect(clip()).toBeUndefined()
})

test('over a range only that is put down; another take of the place is chosen from the stack', async ({ board, shoal }) => {
  const range = board.getByRole('img', { name: 'Range' }).first()
  const drawRange = async () => {
    const time = row(board, voice).locator('[data-clip]').nth(1)
    await time.scrollIntoViewIfNeeded()
    const box = (await time.boundingBox())!
    await board.keyboard.down('Shift')
    await board.mouse.move(box.x - 60, box.y + 8)
    await board.mouse.down()
    await board.mouse.move(box.x - 30, box.y + 8, { steps: 4 })
    await board.mouse.up()
    await board.keyboard.up('Shift')
    await expect(range).toBeVisible()
  }
  for (const n of [1, 2]) {
    await drawRange()
    await record(board, 9) // the bar before the range, and all of it
    await stopped(board)
    await expect(board.getByRole('listitem', { name: `Take ${n}, treated, heard` })).toBeVisible()
    const now = await recorded(board, shoal)
    const clips = now.row(voice).clips.filter((c) => c.take)
    expect(clips, 'the one before has been put away').toHaveLength(1)
    expect(clips[0]!.start).toBeGreaterThan(now.takes[n - 1]!.runs[0]!.song)
    await board.keyboard.press('Escape')
  }
  await board.getByRole('button', { name: '2 takes of Take 2' }).click()
  await board.getByRole('listitem', { name: 'Take 1' }).getByRole('button', { name: 'treated', exact: true }).click()
  await expect(board.getByRole('listitem', { name: 'Take 1, treated, heard' })).toBeVisible()
  const menu = board.getByRole('listitem', { name: 'Take 2' }).getByRole('button', { name: 'Menu of Take 2' })
  await menu.click()
  await board.getByRole('menuitem', { name: 'Put it away' }).click()
  await expect(board.getByRole('listitem', { name: 'Take 2' })).toBeHidden()
  await board.getByRole('button', { name: '1 put away: show' }).click()
  await expect(board.getByRole('listitem', { name: 'Take 2' })).toBeVisible()
})

test('eight stand-ins are recorded at once while the demo plays: no frame is missing', async ({ board, shoal }) => {
  const { rows } = await recorded(board, shoal)
  const kinds = ['reader', 'marimba', 'hand-drum', 'room', 'hum', 'tone', 'hot', 'reader']
  const tracks = rows.filter((c) => c.kind === 'track').slice(0, 8)
  await board.request.post(`${shoal.url}/api/projects/slackwater/changes`, {
    data: {
      label: 'Record everybody',
      changes: tracks.map((c, i) => ({ type: 'channel.set', do: { id: c.id, records: kinds[i] } })),
    },
  })
  for (const c of tracks) await board.getByRole('button', { name: `Make ${c.name} ready to be recorded`, exact: true }).click()
  await record(board, 6)
  await stopped(board)
  const { takes } = await recorded(board, shoal)
  expect(takes).toHaveLength(8)
  for (const t of takes) {
    expect(t.runs, `${t.name} is whole`).toHaveLength(1)
    expect(t.runs[0]).toEqual(takes[0]!.runs[0])
    expect(framesOf(t)).toBeGreaterThan(6 * 48000)
  }
})

test('a window that is closed while it records loses nothing: the next one brings it in', async ({ board, shoal, context }) => {
  await board.getByRole('button', { name: voice, exact: true }).click()
  await record(board, 3)
  await board.close()
  const next = await context.newPage()
  await next.goto(`${shoal.url}/project/slackwater`)
  await expect(next.getByLabel('Ada (you) is here')).toBeVisible()
  // Shoal waits half a minute for a window that says nothing
  await expect.poll(async () => (await recorded(next, shoal)).takes.length, { timeout: 60_000 }).toBe(1)
  const { takes } = await recorded(next, shoal)
  expect(takes[0]!.ended).toContain('the window was closed')
  expect(framesOf(takes[0]!), 'up to a second before').toBeGreaterThan(2 * 48000)
})

test('without a connection the recording waits in the browser, and arrives whole', async ({ board, shoal, context }) => {
  await board.getByRole('button', { name: voice, exact: true }).click()
  await record(board, 2)
  await context.setOffline(true)
  await expect(board.getByText(/s of the recording wait in this browser/)).toBeVisible()
  // the song goes on for as long as its sound is there, then it waits; who is recorded is not asked to
  await expect(board.getByRole('button', { name: 'Waiting', exact: true })).toBeVisible()
  await context.setOffline(false)
  await expect(board.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await expect(board.getByText(/s of the recording wait in this browser/)).toBeHidden()
  await longer(board, 1)
  await stopped(board)
  const { takes } = await recorded(board, shoal)
  expect(takes).toHaveLength(1)
  expect(takes[0]!.ended).toBeUndefined()
  expect(takes[0]!.runs).toHaveLength(1)
  expect(framesOf(takes[0]!)).toBeGreaterThan(5 * 48000)
})

test('Shoal killed while somebody records: what was safe is a take, and what comes after it another', async ({ board, shoal }) => {
  await board.getByRole('button', { name: voice, exact: true }).click()
  await record(board, 3)
  await shoal.stop('SIGKILL')
  await shoal.start()
  await longer(board, 3)
  await board.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(board.getByText('has been brought in')).toBeVisible()
  await expect.poll(async () => (await recorded(board, shoal)).takes.length).toBe(2)
  const [first, second] = (await recorded(board, shoal)).takes
  expect(first!.ended).toContain('Shoal was stopped')
  const end = first!.runs.at(-1)!
  expect(second!.runs[0]!.song, 'nothing lies between them').toBe(end.song + end.frames)
})

test('two record on one row: the second is told who does', async ({ board, shoal, browser }) => {
  await board.getByRole('button', { name: voice, exact: true }).click()
  await record(board, 1)
  const other = await browser.newPage()
  await enter(other, shoal, 'Ole')
  await other.getByRole('button', { name: voice, exact: true }).click()
  await other.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(other.getByText('Ada records on Tide table')).toBeVisible()
  await other.close()
  await stopped(board)
})

test('the way in is moved along the chain; taken away, it is asked what becomes of its clips', async ({ board, shoal }) => {
  await board.getByRole('button', { name: voice, exact: true }).click()
  await record(board, 2)
  await stopped(board)
  await board.keyboard.press('Escape')
  const mark = board.getByRole('slider', { name: `Way in of ${voice}` })
  await expect(mark).toHaveAttribute('aria-valuenow', '3')
  await mark.focus()
  await board.keyboard.press('ArrowLeft')
  await expect(mark).toHaveAttribute('aria-valuenow', '2')
  await mark.focus()
  await board.keyboard.press('Delete')
  await board
    .getByRole('dialog', { name: /The way in/ })
    .getByRole('button', { name: 'Play their untouched takes' })
    .click()
  await expect(mark).toBeHidden()
  const now = await recorded(board, shoal)
  const clip = now.row(voice).clips.find((c) => c.take)!
  expect(clip.audio).toBe(now.takes[0]!.untouched)
})
