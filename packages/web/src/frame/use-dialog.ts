import { type ComponentType, useCallback, useRef, useState } from 'react'

/** What every dialog is given that comes when it is asked for. */
export interface OpenDialog {
  readonly open: boolean
  readonly close: () => void
}

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
    setState('loading')
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
    trouble: state === 'failed' ? 'This could not be loaded from the shop. Try again in a moment.' : undefined,
    open,
    close,
  }
}
