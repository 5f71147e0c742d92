import { useSyncExternalStore } from 'react'

const asked = window.matchMedia('(prefers-reduced-motion: reduce)')

const listen = (changed: () => void) => {
  asked.addEventListener('change', changed)
  return () => asked.removeEventListener('change', changed)
}

/** Whether somebody has asked their machine that nothing moves by itself. */
export const useReducedMotion = (): boolean => useSyncExternalStore(listen, () => asked.matches)
