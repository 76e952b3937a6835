import { execFileSync } from 'node:child_process'
import { rmSync, statfsSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '../support/shoal'
import { framesOf, longer, record, recorded, stopped } from '../support/takes'

const GIB = 2 ** 30
const free = () => {
  const s = statfsSync(tmpdir())
  return s.bavail * s.bsize
}

// what fills the disk is half as much again as may still be written
const filled = Math.floor(Math.min(3 * GIB, free() * 0.6))
const full = (path: string) => execFileSync('fallocate', ['-l', String(filled), path])

test.use({ started: `--keep-free ${Math.round(free() - (filled * 2) / 3)}` })

test('the disk fills up while it is recorded: that is said, and what waits lands when there is room again', async ({ board, shoal }) => {
  const filling = join(shoal.data, 'filling')
  await board.getByRole('button', { name: 'Tide table', exact: true }).click()
  await record(board, 2)
  full(filling)
  await expect(board.getByText(/s of the recording wait in this browser: .*no room left on the disk/)).toBeVisible()
  await longer(board, 2)
  rmSync(filling)
  await expect(board.getByText(/wait in this browser/)).toBeHidden()
  await longer(board, 1)
  full(filling)
  await expect(board.getByText(/wait in this browser/)).toBeVisible()
  rmSync(filling)
  await stopped(board)
  const { takes } = await recorded(board, shoal)
  expect(takes).toHaveLength(1)
  expect(takes[0]!.runs, 'nothing is missing').toHaveLength(1)
  expect(framesOf(takes[0]!)).toBeGreaterThan(5 * 48000)

  full(filling)
  await board.keyboard.press('Escape')
  await board.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(board.getByText(/There is almost no room left on the disk: make some/i)).toBeVisible()
  rmSync(filling)
})
