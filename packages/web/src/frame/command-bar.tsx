import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { mayDo } from '@tessellum/contract/rights'
import { Input, type InputRef, Modal } from 'antd'
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useMay } from '../people/me'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './command-bar.module.css'
import { type Command, commandsOf, matching } from './commands'

/** Finds patterns, items, batches and things to do by a few letters. Arrows choose, Enter goes. */
export function CommandBar({ close }: { close: () => void }) {
  const navigate = useNavigate()
  const [typed, setTyped] = useState('')
  const [at, setAt] = useState(0)
  const box = useRef<InputRef>(null)
  const { data: patterns } = useQuery(read.patterns)
  const { data: me } = useQuery(read.me)
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

  const all = useMemo(
    () => commandsOf((right) => mayDo(me?.roles ?? [], right), { patterns: patterns ?? [], batches: batches ?? [] }),
    [me, patterns, batches],
  )
  const items = (find.length > 1 ? (shelf?.pages[0]?.items ?? []) : []).map(
    (item): Command => ({
      label: `${item.colourName}, ${item.kind} ${item.size}, ${item.colourCode}`,
      what: 'item',
      to: `/stock/${item.id}`,
    }),
  )
  const found = matching(all, typed)
    .concat(items)
    .concat(
      (find.length > 1 ? (customers?.pages[0]?.customers ?? []) : []).map(
        ({ id, name }): Command => ({
          label: name,
          what: 'customer',
          to: `/customers/${id}`,
        }),
      ),
    )
    .slice(0, 9)

  const reserve = useIdempotentMutation((id: number) => call('POST /api/batches/:id/reserve', { params: { id } }), {
    stale: ['batches', 'stock'],
    tell: true,
    said: ({ name }) => `${name} is reserved: the shelf promises it all.`,
    undo: (_, id) => () => call('POST /api/batches/:id/release', { params: { id } }),
  })
  const go = ({ to, reserves }: Command) => {
    close()
    if (reserves !== undefined) reserve.run(reserves)
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
          } else if (event.key === 'Enter' && found[at]) go(found[at])
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
            onMouseDown={() => go(each)}
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
    import('@tessellum/core/desk/quick-fit').then(
      ({ quickFit }) => {
        const said = quickFit(text)
        if (!left) setAnswer(said === undefined ? undefined : { to: text, said })
      },
      () => left || setAnswer({ to: text, said: 'This could not be loaded. Reload the page, and ask again.' }),
    )
    return () => {
      left = true
    }
  }, [text])
  return answer?.to === text ? answer.said : undefined
}
