import { useQuery } from '@tanstack/react-query'
import { Drawer } from 'antd'
import { Loading } from '../frame/loading'
import type { OpenDialog } from '../frame/use-dialog'
import { HelpDocument } from './help-document'
import { helpText } from './help-texts'

interface NotationDrawerProps extends OpenDialog {
  readonly insert: ((lines: readonly string[]) => void) | undefined
}

/** The notation beside the text that is being written, each example ready to be put into it. */
export function NotationDrawer({ insert, open, close }: NotationDrawerProps) {
  const { data } = useQuery({ ...helpText('notation'), enabled: open })
  return (
    <Drawer title="Notation" open={open} size={620} mask={false} onClose={close} destroyOnHidden>
      {data === undefined ? <Loading what="Fetching the notation" /> : <HelpDocument text={data} insert={insert} />}
    </Drawer>
  )
}
