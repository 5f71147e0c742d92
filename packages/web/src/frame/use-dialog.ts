import { type ComponentType, useCallback, useRef, useState } from 'react'

/** What every dialog is given that comes when it is asked for. */
export interface OpenDialog {
  readonly open: boolean
  readonly close: () => void
}

/** The shop may be away, or was updated since the page was opened. */
const cannotLoad =
  'This could not be loaded from the shop. Try again; if that does not help, reload the page. What you typed is kept.'

/**
 * A dialog whose code comes when it is first asked for: most who open the page do without it.
 *
 * @param load brings it; asked again where that failed
 */
export function useDialog<Props extends OpenDialog>(load: () => Promise<ComponentType<Props>>) {
  const [Dialog, setDialog] = useState<ComponentType<Props>>()
  const [state, setState] = useState<'closed' | 'loading' | 'open' | 'failed'>('closed')
  const { current: bring } = useRef(() => load().then((found) => setDialog(() => found)))
  const close = useCallback(() => setState('closed'), [])
  const open = useCallback(() => {
    setState((was) => (was === 'open' ? was : 'loading'))
    bring().then(
      () => setState('open'),
      () => setState('failed'),
    )
  }, [bring])
  return {
    Dialog,
    isOpen: state === 'open',
    isLoading: state === 'loading',
    /** Why it did not open. */
    trouble: state === 'failed' ? cannotLoad : undefined,
    open,
    close,
  }
}
