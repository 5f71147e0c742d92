import { NavLink } from 'react-router'
import styles from './pattern-nav.module.css'

const pages = [
  { label: 'Ledger', path: '' },
  { label: 'Walk', path: '/walk' },
  { label: 'Sizes', path: '/sizes' },
  { label: 'Colours', path: '/colours' },
  { label: 'Makers', path: '/makers' },
  { label: 'Pictures', path: '/pictures' },
  { label: 'Versions', path: '/versions' },
  { label: 'Written', path: '/written' },
] as const

/** The pages of one pattern; what is chosen goes along. */
export function PatternNav({ id, chosen = {} }: { id: number; chosen?: Readonly<Record<string, string | undefined>> }) {
  const kept = new URLSearchParams(
    Object.entries(chosen).flatMap(([name, value]) => (value ? [[name, value] as [string, string]] : [])),
  ).toString()
  return (
    <nav className={`${styles.nav} no-print`} aria-label="Pages of this pattern">
      {pages.map(({ label, path }) => (
        <NavLink key={label} end to={`/patterns/${id}${path}${kept ? `?${kept}` : ''}`}>
          {label}
        </NavLink>
      ))}
    </nav>
  )
}
