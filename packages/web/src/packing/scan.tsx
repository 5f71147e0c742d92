import { type Found, type ScannerNews, scannerNews } from '@tessellum/contract/devices'
import { Input } from 'antd'
import { useRef, useState } from 'react'
import { call, ShopError } from '../shop/api'
import { useDevice } from '../stream/use-device'
import styles from './scan.module.css'

/** One label may be read twice in a moment. */
const sameMs = 800

/**
 * A code from the scanner, or typed: by hand, or by a scanner that is a keyboard to this machine.
 *
 * @param take what it stands for; a string is what is wrong with it here
 */
export function Scan({ take }: { take: (found: Found) => string | undefined }) {
  const [typed, setTyped] = useState('')
  const [trouble, setTrouble] = useState('')
  const last = useRef({ code: '', at: 0 })
  const look = async (code: string) => {
    const now = Date.now()
    if (code === last.current.code && now - last.current.at < sameMs) return
    last.current = { code, at: now }
    try {
      setTrouble(take(await call('GET /api/codes/:code', { params: { code: code || ' ' } })) ?? '')
    } catch (error) {
      setTrouble(error instanceof ShopError ? `${error.message} ${error.hint ?? ''}` : 'That was not read clearly.')
    }
  }
  useDevice(
    'scanner',
    scannerNews,
    (news: ScannerNews) => {
      // Of several tabs the one that is looked at takes it.
      if ('code' in news && document.visibilityState === 'visible') void look(news.code)
    },
    () => undefined,
  )
  return (
    <div>
      <Input
        aria-label="Scan or type a code"
        placeholder="Scan a tube or a bag"
        value={typed}
        maxLength={200}
        onChange={({ target }) => setTyped(target.value)}
        onPressEnter={() => {
          void look(typed.trim())
          setTyped('')
        }}
      />
      {trouble && (
        <p role="alert" className={`notice trouble ${styles.below}`}>
          {trouble}
        </p>
      )}
    </div>
  )
}
