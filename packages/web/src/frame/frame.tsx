import { QuestionCircleOutlined, SettingOutlined } from '@ant-design/icons'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button } from 'antd'
import { Suspense, useEffect, useRef } from 'react'
import { Navigate, NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { helpFor } from '../help/help-texts'
import { call } from '../shop/api'
import { useChanges } from '../shop/changes'
import { undoWhatIsOffered } from '../shop/offered-undo'
import { read } from '../shop/queries'
import { Reach } from '../shop/reach'
import styles from './frame.module.css'
import { PageLoading } from './page-loading'
import { places } from './places'
import { rowBeside } from './row-keys'
import { useScrollMemory } from './scroll-memory'
import { Trouble } from './trouble'
import { useDialog } from './use-dialog'
import { Waiting } from './waiting'
import { Mark } from './wordmark'

const keysDialog = async () => (await import('./keys')).Keys
const commandBar = async () => (await import('./command-bar')).CommandBar

/** What stands round every page: the places, the command bar, who is here, and whether the shop can be reached. */
export function Frame() {
  const { data: me, error, isPending } = useQuery(read.me)
  const location = useLocation()
  if (isPending) return <PageLoading />
  if (error) {
    return (
      <>
        <Reach />
        <Trouble error={error} />
      </>
    )
  }
  if (!me) return <Navigate to={`/sign-in?next=${encodeURIComponent(location.pathname + location.search)}`} replace />
  return <Ready name={me.fullName} roles={me.roles} />
}

/** Pages say lengths, money and counts as the shop does: nothing is shown before it is known how. */
function Ready(who: { name: string; roles: readonly string[] }) {
  const { data, error } = useQuery(read.settings)
  if (data) return <AppShell {...who} />
  if (!error) return <PageLoading />
  return (
    <>
      <Reach />
      <Trouble error={error} />
    </>
  )
}

/** What is pressed there is meant for it. */
const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('input, textarea, [contenteditable=true]') !== null

function AppShell({ name, roles }: { name: string; roles: readonly string[] }) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const location = useLocation()
  const bar = useDialog(commandBar)
  const keys = useDialog(keysDialog)
  const { open: find } = bar
  const { open: showKeys } = keys
  const trouble = bar.trouble ?? keys.trouble
  const dismiss = () => {
    bar.close()
    keys.close()
  }
  const main = useRef<HTMLElement>(null)
  useScrollMemory(main)
  useChanges()
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault()
        find()
      } else if (
        (event.ctrlKey || event.metaKey) &&
        event.key === 'z' &&
        !event.defaultPrevented &&
        !typing(event.target)
      ) {
        if (undoWhatIsOffered()) event.preventDefault()
      } else if (event.key === '?' && !typing(event.target)) {
        showKeys()
      } else if (event.altKey && !event.ctrlKey && !event.metaKey) {
        const place = places.find(({ key }) => key === event.key)
        if (!place) return
        event.preventDefault()
        void navigate(place.path)
      } else if (!event.defaultPrevented && !event.shiftKey && event.target instanceof Element) {
        const next = rowBeside(event.target, event.key, document)
        if (!next) return
        event.preventDefault()
        next.focus()
      }
    }
    window.addEventListener('keydown', pressed)
    return () => window.removeEventListener('keydown', pressed)
  }, [navigate, find, showKeys])
  const leave = async () => {
    await call('POST /api/sign-out')
    client.clear()
    void navigate('/sign-in')
  }
  return (
    <div className={styles.frame}>
      <a className={styles.skip} href="#main">
        Go to the page
      </a>
      <header>
        <NavLink className={styles.wordmark ?? ''} to="/bench">
          <Mark size={25} />
          Tessellum
        </NavLink>
        <nav className={styles.places} aria-label="Places">
          {places.map(({ path, label, key }) => (
            <NavLink key={path} to={path} title={`Alt ${key}`}>
              {label} <kbd aria-hidden="true">{key}</kbd>
            </NavLink>
          ))}
        </nav>
        <div className={styles.person}>
          <button type="button" className={styles.plain} onClick={find}>
            Find <kbd aria-hidden="true">Ctrl K</kbd>
          </button>
          <NavLink className={styles.who ?? ''} to="/account" title="Your account">
            {name}, {roles.join(', ')}
          </NavLink>
          <NavLink className={styles.who ?? ''} to="/settings" aria-label="Settings" title="Settings">
            <SettingOutlined aria-hidden="true" />
          </NavLink>
          <NavLink
            className={styles.who ?? ''}
            to={`/help/${helpFor(location.pathname)}`}
            aria-label="Help"
            title="Help"
          >
            <QuestionCircleOutlined aria-hidden="true" />
          </NavLink>
          <button type="button" className={styles.plain} onClick={leave}>
            Sign out
          </button>
        </div>
      </header>
      <Reach />
      {trouble && (
        <div role="alert" className="notice trouble">
          {trouble}{' '}
          <Button size="small" onClick={dismiss}>
            Close
          </Button>
        </div>
      )}
      <main id="main" ref={main} tabIndex={-1} className={styles.main}>
        <Suspense fallback={<PageLoading />}>
          <Outlet />
        </Suspense>
      </main>
      <Waiting />
      {keys.Dialog && keys.isOpen && <keys.Dialog open close={keys.close} />}
      {bar.Dialog && bar.isOpen && <bar.Dialog open close={bar.close} />}
    </div>
  )
}
