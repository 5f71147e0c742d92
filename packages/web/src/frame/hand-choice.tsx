import { type Hand, hands } from '@tessellum/core/drawing/mirror'
import { Segmented } from 'antd'
import { useSearchParams } from 'react-router'

const words: Readonly<Record<Hand, string>> = { right: 'Right-handed', left: 'Left-handed' }

/** Whose hand the page is for, as its address says. */
export function useHandedness(): Hand {
  const [params] = useSearchParams()
  return hands.find((each) => each === params.get('hand')) ?? 'right'
}

export function HandChoice() {
  const hand = useHandedness()
  const [, setParams] = useSearchParams()
  const choose = (value: Hand) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before)
        next.set('hand', value)
        return next
      },
      { replace: true },
    )
  return (
    <Segmented
      aria-label="Hand"
      value={hand}
      options={hands.map((value) => ({ value, label: words[value] }))}
      onChange={choose}
    />
  )
}
