import styles from './notation-lines.module.css'

/** Lines of a pattern, as they are about to be written into it. */
export const NotationLines = ({ lines }: { lines: readonly string[] }) => (
  <pre className={styles.lines}>{lines.join('\n') || ' '}</pre>
)
