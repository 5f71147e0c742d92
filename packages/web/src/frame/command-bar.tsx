import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { Input, type InputRef, Modal } from 'antd'
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useMay } from '../people/me'
import { parts } from '../settings/parts'
import { read } from '../shop/queries'
import styles from './command-bar.module.css'
import { places } from './places'

interface Found {
  readonly label: string
  readonly what: string
  readonly to: string
}

/** Finds patterns, items, batches and things to do by a few letters. Arrows choose, Enter goes. */
export function CommandBar({ close }: { close: () => void }) {
  const navigate = useNavigate()
  const [typed, setTyped] = useState('')
  const [at, setAt] = useState(0)
  const box = useRef<InputRef>(null)
  const mayPlan = useMay('batches.plan')
  const { data: patterns } = useQuery(read.patterns)
  const mayTeach = useMay('classes.keep')
  const mayAudit = useMay('audit.read')
  const mayKeepPeople = useMay('people.keep')
  const mayCount = useMay('stock.move')
  const maySell = useMay('sales.keep')
  const mayKnow = useMay('customers.read')
  const find = useDeferredValue(typed.trim())
  // The shelf may be long: the server looks along it.
  const { data: shelf } = useInfiniteQuery({
    ...read.shelf({ find, show: 'all', by: 'colour' }),
    enabled: find.length > 1,
  })
  const { data: batches } = useQuery(read.batches)
  const { data: customers } = useInfiniteQuery({ ...read.customers(find), enabled: mayKnow && find.length > 1 })
  const answer = useQuickFit(find)

  const all = useMemo<Found[]>(
    () => [
      ...places.map(({ label, path }) => ({ label, what: 'place', to: path })),
      ...(mayPlan
        ? [
            { label: 'Plan a batch', what: 'action', to: '/kits/plan' },
            { label: 'How many can I make?', what: 'action', to: '/kits/make' },
          ]
        : []),
      { label: 'What to buy', what: 'action', to: '/kits/buy' },
      { label: 'Orders', what: 'action', to: '/diary/orders' },
      { label: 'Suppliers', what: 'action', to: '/suppliers' },
      { label: 'Price list', what: 'action', to: '/counter/prices' },
      ...(mayTeach ? [{ label: 'Offer a class', what: 'action', to: '/diary/classes/new' }] : []),
      ...(mayCount
        ? [
            { label: 'Count a place', what: 'action', to: '/stock/count' },
            { label: 'Files of stock', what: 'action', to: '/stock/files' },
            { label: 'Stand-ins', what: 'action', to: '/stand-ins' },
          ]
        : []),
      ...(mayKnow ? [{ label: 'Customers', what: 'action', to: '/customers' }] : []),
      ...(maySell ? [{ label: 'Counter', what: 'action', to: '/counter' }] : []),
      { label: 'Your account', what: 'action', to: '/account' },
      ...Object.values(parts).map(({ name, title }) => ({
        label: `Settings: ${title}`,
        what: 'action',
        to: `/settings/${name}`,
      })),
      { label: 'Settings: Costs', what: 'action', to: '/settings/costs' },
      ...(mayKeepPeople ? [{ label: 'People', what: 'action', to: '/people' }] : []),
      ...(mayAudit ? [{ label: 'What was done', what: 'action', to: '/audit' }] : []),
      ...(patterns ?? []).map(({ id, title }) => ({ label: title, what: 'pattern', to: `/patterns/${id}` })),
      ...(batches ?? []).map(({ id, name }) => ({ label: name, what: 'batch', to: `/kits/${id}` })),
    ],
    [patterns, batches, mayPlan, mayAudit, mayKeepPeople, mayCount, mayTeach, maySell, mayKnow],
  )
  const items = (find.length > 1 ? (shelf?.pages[0]?.items ?? []) : []).map((item) => ({
    label: `${item.colourName}, ${item.kind} ${item.size}, ${item.colourCode}`,
    what: 'item',
    to: `/stock/${item.id}`,
  }))
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  const found = all
    .filter(({ label, what }) => words.every((word) => `${label} ${what}`.toLowerCase().includes(word)))
    .concat(items)
    .concat(
      (find.length > 1 ? (customers?.pages[0]?.customers ?? []) : []).map(({ id, name }) => ({
        label: name,
        what: 'customer',
        to: `/customers/${id}`,
      })),
    )
    .slice(0, 9)

  const go = (to: string) => {
    close()
    void navigate(to)
  }
  return (
    <Modal
      open
      onCancel={close}
      footer={null}
      closable={false}
      title={<span className="visually-hidden">Find</span>}
      width={600}
      className={styles.dialog ?? ''}
      afterOpenChange={(shown) => shown && box.current?.focus()}
      destroyOnHidden
    >
      <Input
        ref={box}
        size="large"
        placeholder="A pattern, an item, something to do; or: fit 14 mm round with cylinder 11/0"
        aria-label="Find"
        role="combobox"
        aria-expanded
        aria-controls="found"
        aria-activedescendant={found[at] ? `found-${at}` : undefined}
        value={typed}
        onChange={({ target }) => {
          setTyped(target.value)
          setAt(0)
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
            event.preventDefault()
            const step = event.key === 'ArrowDown' ? 1 : -1
            setAt((at + step + found.length) % Math.max(found.length, 1))
          } else if (event.key === 'Enter' && found[at]) go(found[at].to)
        }}
      />
      {answer && (
        <p role="status" className={`notice good ${styles.below}`}>
          {answer}
        </p>
      )}
      <div id="found" role="listbox" aria-label="Found" className={styles.below}>
        {found.map((each, i) => (
          // The box keeps the keyboard; the mouse may click.
          <div
            key={each.to + each.label}
            id={`found-${i}`}
            role="option"
            tabIndex={-1}
            aria-selected={i === at}
            onMouseDown={() => go(each.to)}
            className={styles.found}
          >
            <span>{each.label}</span>
            <span className="quiet">{each.what}</span>
          </div>
        ))}
        {found.length === 0 && !answer && <p className="quiet">Nothing by that name.</p>}
      </div>
    </Modal>
  )
}

/** The answer to a question of the sizing desk, asked here in a line. */
function useQuickFit(text: string): string | undefined {
  const [answer, setAnswer] = useState<{ readonly to: string; readonly said: string }>()
  useEffect(() => {
    if (!/^fit\s/i.test(text)) return
    let left = false
    // What evaluates patterns is large, and comes only when something is asked.
    void import('@tessellum/core/desk/quick-fit').then(({ quickFit }) => {
      const said = quickFit(text)
      if (!left) setAnswer(said === undefined ? undefined : { to: text, said })
    })
    return () => {
      left = true
    }
  }, [text])
  return answer?.to === text ? answer.said : undefined
}
