import { Button } from 'antd'
import { memo } from 'react'
import { useDialog } from '../frame/use-dialog'

interface NotationButtonProps {
  readonly insert: ((lines: readonly string[]) => void) | undefined
}

/** Opens the notation beside the text that is being written. */
export const NotationButton = memo(function NotationButton({ insert }: NotationButtonProps) {
  const { Dialog, isOpen, isLoading, trouble, open, close } = useDialog(
    async () => (await import('./notation-drawer')).NotationDrawer,
  )
  return (
    <>
      <Button size="small" loading={isLoading} onClick={open}>
        Notation
      </Button>
      {trouble && <span role="alert">{trouble}</span>}
      {Dialog && <Dialog insert={insert} open={isOpen} close={close} />}
    </>
  )
})
