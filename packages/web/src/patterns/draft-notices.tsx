import { Button } from 'antd'
import type { Draft } from './draft'
import { useOfDraft } from './use-draft'

/** What keeps a draft from being saved, and what can be done about it. */
export function DraftNotices({ draft }: { readonly draft: Draft }) {
  const state = useOfDraft(draft, (stands) => stands.state)
  const trouble = useOfDraft(draft, (stands) => stands.trouble)
  if (state === 'moved on')
    return (
      <div className="notice trouble" role="alert">
        Somebody else has saved this pattern since you opened it. Your text is in the ledger and kept in this browser.{' '}
        <Button size="small" onClick={() => draft.settle('mine')}>
          Save mine over theirs
        </Button>{' '}
        <Button size="small" onClick={() => draft.settle('theirs')}>
          Drop mine, show theirs
        </Button>
      </div>
    )
  return (
    trouble && (
      <div className="notice trouble" role="alert">
        {trouble}
      </div>
    )
  )
}
