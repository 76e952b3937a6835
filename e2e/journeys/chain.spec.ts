import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, project, row, stagesOf, test } from '../support/shoal'

const presets = (page: import('@playwright/test').Page) => page.getByRole('listbox', { name: 'Presets' })

const names = (page: import('@playwright/test').Page, r: string) =>
  stagesOf(page, r).evaluateAll((l) => l.map((e) => e.getAttribute('aria-label')))

test('several stages are selected, bypassed, copied to another row, moved and removed; undo brings them back', async ({ board }) => {
  await stagesOf(board, 'Frame drum').nth(1).click()
  await board.keyboard.press('Shift+ArrowRight')
  await expect(row(board, 'Frame drum').locator('[data-stage][aria-pressed=true]')).toHaveCount(2)
  await board.keyboard.press('b')
  await expect.poll(() => names(board, 'Frame drum')).toEqual(['Gate', 'Equaliser, bypassed', 'Fingers, bypassed'])
  await board.keyboard.press('b')
  await expect.poll(() => names(board, 'Frame drum')).toEqual(['Gate', 'Equaliser', 'Fingers'])
  await board.keyboard.press('Control+c')
  await expect(board.getByText('2 stages are on the clipboard.')).toBeVisible()
  await row(board, 'Harbour').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('Control+v')
  await expect.poll(() => names(board, 'Harbour')).toEqual(['Equaliser', 'Slow water', 'Equaliser', 'Fingers'])
  // both are dragged to another row, in their order
  await stagesOf(board, 'Frame drum').nth(1).click()
  await stagesOf(board, 'Frame drum')
    .nth(2)
    .click({ modifiers: ['Control'] })
  await stagesOf(board, 'Frame drum')
    .nth(2)
    .dragTo(stagesOf(board, 'Choir afar').nth(0), { targetPosition: { x: 4, y: 10 } })
  await expect
    .poll(() => names(board, 'Choir afar'))
    .toEqual(['Equaliser', 'Fingers', 'Equaliser', 'Detune', 'Left of the wind', 'Right of the wind'])
  await expect.poll(() => names(board, 'Frame drum')).toEqual(['Gate'])
  await board.keyboard.press('Delete')
  await expect(stagesOf(board, 'Choir afar')).toHaveCount(4)
  await board.keyboard.press('Control+z')
  await board.keyboard.press('Control+z')
  await expect.poll(() => names(board, 'Frame drum')).toEqual(['Gate', 'Equaliser', 'Fingers'])
})

test('a preset is heard before it is taken, and leaving the list brings the old setting back', async ({ board, shoal }) => {
  const gain = async () => (await project(board, shoal)).project.channels[3]!.chain.nodes[1]!.stage.params.gain3
  await stagesOf(board, 'Frame drum').nth(1).click()
  await board.keyboard.press('Space')
  await board.keyboard.press('w')
  await board.getByLabel('Search presets').fill('mallets')
  await expect(presets(board).getByRole('option')).toHaveCount(1)
  await board.keyboard.press('ArrowDown')
  await expect(presets(board).getByRole('option', { name: /Wooden bars/ })).toHaveAttribute('aria-selected', 'true')
  expect(await gain()).toBe(-4)
  await board.keyboard.press('Escape')
  expect(await gain()).toBe(-4)
  await board.keyboard.press('w')
  await presets(board)
    .getByRole('option', { name: /Wooden bars/ })
    .click()
  await board.getByRole('button', { name: 'Take' }).click()
  await expect.poll(gain).toBe(-3)
  await expect(board.getByRole('dialog', { name: 'Presets' })).toHaveCount(0)

  // saved under a name, renamed, deleted, taken back, exported and imported
  await board.keyboard.press('w')
  await board.getByRole('button', { name: 'Save', exact: true }).click()
  await board.getByLabel('Name of the preset').fill('Ropewalk')
  await board.getByLabel('What it is for').fill('The drum in the long shed.')
  await board.getByRole('textbox', { name: 'Tags' }).fill('drum shed')
  await board.getByRole('button', { name: 'Save the present setting' }).click()
  await expect(presets(board).getByRole('option', { name: /Ropewalk/ })).toBeVisible()
  await board.getByLabel('Menu of Ropewalk').click()
  await board.getByRole('menuitem', { name: 'Delete' }).click()
  await expect(presets(board).getByRole('option', { name: /Ropewalk/ })).toHaveCount(0)
  await board.getByRole('button', { name: 'Take it back' }).click()
  await expect(presets(board).getByRole('option', { name: /Ropewalk/ })).toBeVisible()
  await board.getByLabel('Menu of Ropewalk').click()
  const [file] = await Promise.all([board.waitForEvent('download'), board.getByRole('menuitem', { name: 'Export as a file' }).click()])
  const saved = JSON.parse(readFileSync(await file.path(), 'utf8'))
  expect(saved.presets[0].body.params.gain3).toBe(-3)
  saved.presets[0].name = 'From elsewhere'
  saved.presets[0].body.params.sparkle = 3
  const dir = mkdtempSync(join(tmpdir(), 'presets-'))
  writeFileSync(join(dir, 'p.json'), JSON.stringify(saved))
  await board.getByLabel('Import a file of presets').setInputFiles(join(dir, 'p.json'))
  await expect(presets(board).getByRole('option', { name: /From elsewhere/ })).toContainText(
    'Unknown here, kept and left out: Equaliser sparkle',
  )
  writeFileSync(join(dir, 'bad.json'), 'Dear harbour master')
  await board.getByLabel('Import a file of presets').setInputFiles(join(dir, 'bad.json'))
  await expect(board.getByText('is not a file of presets')).toBeVisible()
})

test('an older sound stays as it was until the new one is asked for, and undo brings it back', async ({ board }) => {
  const preset = {
    version: 1,
    id: 'old',
    kind: 'stage',
    effect: 'vibrato',
    effectVersion: 1,
    name: 'Old belt',
    says: 'As it once swung.',
    tags: [],
    shipped: false,
    unknown: [],
    body: { params: { depth: 40 }, mix: 100, mixLaw: 'blend', fader: 0, pan: 0, stereo: true, soloSafe: false, tint: 0 },
  }
  await stagesOf(board, 'Marimba').nth(0).click()
  await board.keyboard.press('/')
  await board.getByLabel('Search effects').fill('vibrato')
  await board.keyboard.press('Enter')
  await expect.poll(() => names(board, 'Marimba')).toContain('Vibrato')
  await expect(board.getByText(/An older sound/)).toHaveCount(0)
  await board.keyboard.press('w')
  await board.getByLabel('Import a file of presets').setInputFiles({
    name: 'old.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify({ version: 1, presets: [preset] })),
  })
  await presets(board)
    .getByRole('option', { name: /Old belt/ })
    .click()
  await board.getByRole('button', { name: 'Take' }).click()
  const older = board.getByText('An older sound: 1 of 3')
  await expect(older).toBeVisible()
  await board.getByRole('button', { name: 'Menu of the project Slack Water' }).click()
  await board.getByRole('menuitem', { name: /^Use the new sounds: 1 stage has an older one/ }).click()
  await expect(older).toBeHidden()
  await board.keyboard.press('Control+z')
  await expect(older).toBeVisible()
  await board.getByRole('button', { name: 'Use the new one' }).click()
  await expect(board.getByText(/An older sound/)).toHaveCount(0)
  await board.keyboard.press('Control+z')
  await expect(older).toBeVisible()
})

test('the same stages in another order are a trial: heard, measured, hidden, taken and dropped', async ({ board, shoal }) => {
  const channel = async () =>
    (await project(board, shoal)).project.channels[0]! as unknown as { letter: string; trials: { letter: string }[] }
  await stagesOf(board, 'Marimba').nth(1).click()
  await board.keyboard.press('Space')
  await expect.poll(() => names(board, 'Marimba')).toEqual(['Equaliser', 'Compressor', 'Dotted echo', 'Brake'])
  await board.keyboard.press('y') // the demo keeps a trial here
  await expect.poll(() => names(board, 'Marimba')).toEqual(['Equaliser', 'Dotted echo', 'Compressor', 'Brake'])
  await stagesOf(board, 'Marimba').nth(0).click()
  await board.keyboard.press('o')
  await expect.poll(() => names(board, 'Marimba')).toEqual(['Dotted echo', 'Equaliser', 'Compressor', 'Brake'])
  expect((await channel()).trials.map((t) => t.letter)).toEqual(['B', 'C'])
  await expect(board.getByRole('button', { name: /^Matched/ })).toBeVisible()

  await board.getByLabel('Trials of Marimba').click()
  await board.getByRole('menuitem', { name: 'Compare in figures' }).click()
  const card = board.getByRole('dialog', { name: 'Trials of Marimba in figures' })
  await expect(card.getByRole('row')).toHaveCount(4, { timeout: 20_000 })
  await expect(card.getByRole('img', { name: 'Difference in thirds of an octave' })).toBeVisible()
  await board.keyboard.press('Escape')

  await board.getByLabel('Trials of Marimba').click()
  await board.getByRole('menuitem', { name: 'Compare blind' }).click()
  await expect(board.getByRole('group', { name: 'Trials' })).toHaveText('123')
  await board.getByLabel('Choose one of those compared blind').click()
  await board.getByRole('menuitem', { name: 'I hear no difference' }).click()
  await expect(board.getByRole('group', { name: 'Trials' })).toHaveText('ABC')

  await board.getByRole('button', { name: 'Hear Trial C' }).click()
  await board.getByLabel('Trials of Marimba').click()
  await board.getByRole('menuitem', { name: 'Make C the chain' }).click()
  await expect.poll(async () => (await channel()).letter).toBe('C')
  await expect.poll(() => names(board, 'Marimba')).toEqual(['Dotted echo', 'Equaliser', 'Compressor', 'Brake'])
  await board.getByRole('button', { name: 'Hear Trial A' }).click()
  await board.getByLabel('Trials of Marimba').click()
  await board.getByRole('menuitem', { name: 'Drop A' }).click()
  await expect.poll(async () => (await channel()).trials.map((t) => t.letter)).toEqual(['B'])
})

test('one stage is listened to alone, a second stays on the bench, and the mix can be locked', async ({ board, shoal }) => {
  await stagesOf(board, 'Choir').nth(1).click()
  await board.keyboard.press('Space')
  await board.keyboard.press('Shift+j')
  await expect(board.getByText('You hear only what Two more voices on Choir changes')).toBeVisible()
  await board.keyboard.press('j')
  await expect(board.getByText('You hear Choir up to Two more voices')).toBeVisible()
  await board.keyboard.press('Escape')
  await expect(board.getByText('You hear Choir')).toHaveCount(0)

  await board.keyboard.press('i')
  await stagesOf(board, 'Choir').nth(0).click()
  await expect(board.getByRole('heading', { name: 'Two more voices' })).toBeVisible()
  await expect(board.getByRole('heading', { name: 'Equaliser' })).toBeVisible()
  await board.keyboard.press('i') // the other one now
  await stagesOf(board, 'Handbells').nth(3).click()
  await board.getByLabel('Delay on Handbells').getByLabel('Acts on').selectOption('side')
  await board.getByLabel('Delay on Handbells').getByRole('switch', { name: 'Lock the mix' }).click()
  await board.keyboard.press('r')
  await board.getByLabel('Search effects').fill('phaser')
  await board.keyboard.press('Enter')
  await expect
    .poll(async () => {
      const s = (await project(board, shoal)).project.channels[1]!.chain.nodes[3]!.stage as unknown as Record<string, unknown>
      return [s.effect, s.mix, s.mixLaw, s.actsOn, s.mixLock]
    })
    .toEqual(['phaser', 22, 'add', 'side', true])
})

test('values are typed with units and note lengths; what is out of range is brought in with a word', async ({ board, shoal }) => {
  await stagesOf(board, 'Marimba').nth(2).click()
  const params = async () => (await project(board, shoal)).project.channels[0]!.chain.nodes[2]!.stage.params
  const type = async (name: string, text: string) => {
    await board.getByRole('slider', { name, exact: true }).focus()
    await board.keyboard.press('Enter')
    await board.getByLabel(`${name}, type a value`).fill(text)
    await board.keyboard.press('Enter')
  }
  await type('Note', '1/4d')
  await expect.poll(async () => (await params()).note).toBe(10)
  await type('High cut', '3k')
  await expect.poll(async () => (await params()).highcut).toBe(3000)
  await type('Feedback', '250')
  await expect(board.getByText('Feedback goes from 0 % to 100 %: it is now at 100 %.')).toBeVisible()
  await expect.poll(async () => (await params()).feedback).toBe(100)
})

/** A WAV file of a constant or a decaying click. */
function wav(seconds: number, value: (i: number) => number): Buffer {
  const n = Math.round(seconds * 48000)
  const b = Buffer.alloc(44 + 2 * n)
  b.write('RIFF', 0)
  b.writeUInt32LE(36 + 2 * n, 4)
  b.write('WAVEfmt ', 8)
  b.writeUInt32LE(16, 16)
  b.writeUInt16LE(1, 20)
  b.writeUInt16LE(1, 22)
  b.writeUInt32LE(48000, 24)
  b.writeUInt32LE(96000, 28)
  b.writeUInt16LE(2, 32)
  b.writeUInt16LE(16, 34)
  b.write('data', 36)
  b.writeUInt32LE(2 * n, 40)
  for (let i = 0; i < n; i++) b.writeInt16LE(Math.round(value(i) * 32767), 44 + 2 * i)
  return b
}

test('an impulse response is loaded from a file; a silent, too long or damaged one is refused in words', async ({ board, shoal }) => {
  await stagesOf(board, 'Bell buoy').nth(1).click()
  const load = (name: string, buffer: Buffer) =>
    board.getByLabel('Load an impulse response').setInputFiles({ name, mimeType: 'audio/wav', buffer })
  await load(
    'silent.wav',
    wav(1, () => 0),
  )
  await expect(board.getByText('silent.wav: it is silent')).toBeVisible()
  await load(
    'long.wav',
    wav(13, (i) => Math.exp(-i / 9000)),
  )
  await expect(board.getByText('long.wav: an impulse response lasts at most 12 s')).toBeVisible()
  await load('letter.wav', Buffer.from('Dear harbour master'))
  await expect(board.getByText(/letter\.wav: .*not a WAV, FLAC/)).toBeVisible()
  await load(
    'click.wav',
    wav(0.5, (i) => Math.exp(-i / 900)),
  )
  await expect(board.getByText('click.wav is the impulse response now.')).toBeVisible()
  await expect
    .poll(
      async () =>
        (await project(board, shoal)).project.channels.find((c: { name: string }) => c.name === 'Bell buoy')!.chain.nodes[1]!.stage.params
          .space,
    )
    .toBe(7)
  await board.keyboard.press('Space')
  await expect.poll(async () => board.getByTestId('clock').textContent()).not.toBe('0:00.00')
})

test('a chain of 64 stages plays and says what it costs', async ({ board, shoal }) => {
  const p = await project(board, shoal)
  const nodes = Array.from({ length: 64 }, () => ({
    stage: { id: '', name: '', effect: 'trim', version: 1, params: {}, bypass: false, mix: 100, mixLaw: 'blend', actsOn: 'both' },
  }))
  const r = await board.request.post(`${shoal.url}/api/projects/slackwater/changes`, {
    data: { label: 'Many', changes: [{ type: 'chain.put', do: { owner: p.project.channels[0]!.id, bypass: false, nodes } }] },
  })
  expect(r.status(), await r.text()).toBe(200)
  await row(board, 'Marimba').click({ position: { x: 20, y: 8 } })
  await board.keyboard.press('Space')
  await expect(board.getByText(/costs \d/)).toBeVisible({ timeout: 20_000 })
  await board.getByLabel("What the engine's time goes to").click()
  await expect(board.getByText('All stages together take')).toBeVisible()
})
