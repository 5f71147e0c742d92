import { useQuery } from '@tanstack/react-query'
import { Button, Drawer } from 'antd'
import { lazy, memo, Suspense, useState } from 'react'
import { Loading } from '../frame/loading'
import { helpText } from './help-texts'

const HelpDocument = lazy(async () => ({ default: (await import('./help-document')).HelpDocument }))

/** The notation beside the text that is being written, each example ready to be put into it. */
export const NotationDrawer = memo(function NotationDrawer({
  insert,
}: {
  readonly insert: ((lines: readonly string[]) => void) | undefined
}) {
  const [open, setOpen] = useState(false)
  const { data } = useQuery({ ...helpText('notation'), enabled: open })
  return (
    <>
      <Button size="small" onClick={() => setOpen(true)}>
        Notation
      </Button>
      <Drawer title="Notation" open={open} size={620} mask={false} onClose={() => setOpen(false)} destroyOnHidden>
        <Suspense fallback={<Loading />}>
          {data === undefined ? <Loading what="Fetching the notation" /> : <HelpDocument text={data} insert={insert} />}
        </Suspense>
      </Drawer>
    </>
  )
})
