import { act, render, screen } from '@testing-library/react'
import { expect, test } from 'vitest'
import { Card } from '../controls/Card'
import { setView, useView, view } from '../session/view'
import { cardProps } from './card'

function Bench() {
  const open = useView((v) => v.dialog?.kind === 'keys')
  return (
    <>
      <div {...cardProps('gate', 'row', 'row', 0, false)}>Gate</div>
      {open && (
        <Card title="Keys" width={300}>
          <button>Trim</button>
        </Card>
      )}
    </>
  )
}

test('a stage that is focused is selected; one that the focus only comes back to is not, where another came meanwhile', () => {
  render(<Bench />)
  const gate = screen.getByText('Gate')
  void act(() => gate.focus())
  expect(view().stage).toBe('gate')
  void act(() => setView({ dialog: { kind: 'keys' } }))
  expect(document.activeElement?.textContent).not.toBe('Gate')
  void act(() => {
    setView({ dialog: null })
    setView({ channel: 'row', stage: 'trim' }) // it is on its way
  })
  expect(document.activeElement).toBe(gate)
  expect(view().stage).toBe('trim')
})
