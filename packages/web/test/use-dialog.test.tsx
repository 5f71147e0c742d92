/** A dialog whose code comes when it is asked for. */
import { screen } from '@testing-library/react'
import { type OpenDialog, useDialog } from '../src/frame/use-dialog'
import { show } from './on-screen'

const Told = ({ open, close }: OpenDialog) =>
  open ? (
    <button type="button" onClick={close}>
      Close it
    </button>
  ) : (
    'closed'
  )

function Page({ load }: { load: () => Promise<typeof Told> }) {
  const { Dialog, isOpen, isLoading, trouble, open, close } = useDialog(load)
  return (
    <>
      <button type="button" onClick={open}>
        {isLoading ? 'Opening' : 'Open it'}
      </button>
      {trouble && <span role="alert">{trouble}</span>}
      {Dialog && <Dialog open={isOpen} close={close} />}
    </>
  )
}

test('it opens once it is there, and where it cannot be loaded says so and can be asked for again', async () => {
  let loads = 0
  const answers: (() => Promise<typeof Told>)[] = [() => Promise.reject(new Error('away')), async () => Told]
  const load = () => answers[Math.min(loads++, 1)]?.() ?? Promise.reject()
  const { person } = show(<Page load={load} />)
  await person.click(screen.getByRole('button', { name: 'Open it' }))
  expect((await screen.findByRole('alert')).textContent).toContain('could not be loaded')
  await person.click(screen.getByRole('button', { name: 'Open it' }))
  await screen.findByRole('button', { name: 'Close it' })
  // Asked for once more while it is open, it stays as it is.
  await person.click(screen.getByRole('button', { name: 'Open it' }))
  await person.click(screen.getByRole('button', { name: 'Close it' }))
  await screen.findByText('closed')
  expect(screen.queryByRole('alert')).toBeNull()
})
