import type { Pattern } from '@tessellum/contract/patterns'
import { Button } from 'antd'
import { useDialog } from '../frame/use-dialog'

interface KeepVersionProps {
  readonly pattern: Pattern
  readonly save: () => Promise<number | undefined>
  readonly errors: number
}

/** Keeps the draft as it is: batches and written patterns are made from kept versions. */
export function KeepVersion({ pattern, save, errors }: KeepVersionProps) {
  const { Dialog, isOpen, isLoading, trouble, open, close } = useDialog(
    async () => (await import('./keep-dialog')).KeepDialog,
  )
  return (
    <>
      {trouble && <span role="alert">{trouble}</span>}
      <Button
        type="primary"
        loading={isLoading}
        onClick={open}
        disabled={errors > 0}
        title={errors > 0 ? 'Fix the errors first' : undefined}
      >
        Save a version
      </Button>
      {Dialog && <Dialog pattern={pattern} save={save} open={isOpen} close={close} />}
    </>
  )
}
