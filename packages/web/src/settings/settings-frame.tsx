import type { ReactNode } from 'react'
import { Beside } from '../frame/beside'
import { PageHead } from '../frame/page-head'
import { usePageTitle } from '../frame/page-title'
import { useMay } from '../people/me'
import { parts } from './parts'
import styles from './settings.module.css'

/** What all settings have round them: which there are. */
export function SettingsFrame({ title, children }: { title: string; children: ReactNode }) {
  usePageTitle(`${title}, settings`)
  const mayPeople = useMay('people.keep')
  const mayDevices = useMay('batches.pack')
  const links = [
    ...Object.values(parts).map((part) => ({ to: `/settings/${part.name}`, label: part.title })),
    { to: '/settings/costs', label: 'Costs' },
    ...(mayPeople ? [{ to: '/people', label: 'People' }] : []),
    ...(mayDevices ? [{ to: '/stand-ins', label: 'Simulated devices' }] : []),
  ]
  return (
    <div className="page stack">
      <PageHead title="Settings" />
      <Beside label="Settings" links={links}>
        <section aria-label={title} className={styles.body}>
          <h2 className={styles.title}>{title}</h2>
          {children}
        </section>
      </Beside>
    </div>
  )
}
