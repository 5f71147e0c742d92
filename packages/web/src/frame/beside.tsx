import type { ReactNode } from 'react'
import { NavLink } from 'react-router'
import styles from './beside.module.css'

interface BesideProps {
  /** What the list is of. */
  readonly label: string
  readonly links: readonly { readonly to: string; readonly label: string }[]
  readonly children: ReactNode
}

/** A page with the list of its fellows beside it. */
export const Beside = ({ label, links, children }: BesideProps) => (
  <div className={styles.split}>
    <nav className={styles.links} aria-label={label}>
      {links.map((link) => (
        <NavLink key={link.to} to={link.to}>
          {link.label}
        </NavLink>
      ))}
    </nav>
    {children}
  </div>
)
