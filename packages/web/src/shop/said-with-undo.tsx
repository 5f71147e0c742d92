import { Button } from 'antd'

interface SaidWithUndoProps {
  readonly said: string
  readonly undo: () => void
}

/** What was done, and a button that undoes it. */
export const SaidWithUndo = ({ said, undo }: SaidWithUndoProps) => (
  <>
    {said}{' '}
    <Button size="small" onClick={undo} title="Ctrl Z">
      Undo
    </Button>
  </>
)
