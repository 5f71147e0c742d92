import { Button } from 'antd'
import { memo } from 'react'
import { useDialog } from '../frame/use-dialog'
import type { LinesToAdd } from './add-lines-drawer'

/** Lines for people who do not type notation. */
export const AddLines = memo(function AddLines(lines: LinesToAdd) {
  const { Dialog, isOpen, isLoading, trouble, open, close } = useDialog(
    async () => (await import('./add-lines-drawer')).AddLinesDrawer,
  )
  return (
    <>
      <Button size="small" loading={isLoading} onClick={open}>
        Add a line
      </Button>
      {trouble && <span role="alert">{trouble}</span>}
      {Dialog && <Dialog {...lines} open={isOpen} close={close} />}
    </>
  )
})
