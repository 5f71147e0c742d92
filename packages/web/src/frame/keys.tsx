import { Modal } from 'antd'
import styles from './keys.module.css'
import { places } from './places'

/** What keys do, by where. */
const groups: readonly {
  readonly where: string
  readonly keys: readonly (readonly [keys: readonly string[], does: string])[]
}[] = [
  {
    where: 'Everywhere',
    keys: [
      ...places.map(({ key, label }) => [['Alt', key], label] as const),
      [['Ctrl', 'K'], 'Find a pattern, an item, a batch, a customer, something to do'],
      [['Ctrl', 'Z'], 'Undoes what was just done, while that is offered'],
      [['?'], 'These keys'],
      [['Esc'], 'Closes what is open'],
    ],
  },
  {
    where: 'Lists',
    keys: [
      [['↑', '↓'], 'The row above, the row below'],
      [['Home', 'End'], 'The first row, the last'],
      [['Enter'], 'Opens it'],
    ],
  },
  {
    where: 'The text of a pattern',
    keys: [
      [['Ctrl', 'Space'], 'Suggestions for this place'],
      [['F8'], 'The next error or note'],
      [['Ctrl', 'F'], 'Find in the text'],
      [['Ctrl', 'Z'], 'Undo; with Y redo'],
      [['Esc', 'Tab'], 'Leaves the text'],
    ],
  },
  {
    where: 'Stitching on the piece',
    keys: [
      [['A', 'B', '…'], 'Picks the bead up'],
      [['2', '3', '…'], 'That many of it'],
      [['←', '→'], 'A bead back along the thread, a bead on'],
      [['Ctrl', '←'], 'The bead that lies there'],
      [[':'], 'The other hole of it'],
      [['Space'], 'Passes through it; with Shift from its other end'],
      [['↑', '↓'], 'Another proposal'],
      [['Tab'], 'Takes what is proposed'],
      [['Enter'], 'Ends the stitch'],
      [['Backspace'], 'Takes the last pass back'],
    ],
  },
  {
    where: 'Looking at the piece',
    keys: [
      [['←', '→', '↑', '↓'], 'Turns it'],
      [['+', '-'], 'Nearer, further'],
      [['f', 'b', 's'], 'Front, back, side'],
      [['t'], 'Shows the thread or hides it'],
    ],
  },
  {
    where: 'A bar between two panes',
    keys: [
      [['←', '→'], 'Moves it'],
      [['Home'], 'As wide as usual'],
    ],
  },
  {
    where: 'The walk',
    keys: [
      [['←', '→'], 'A step back, a step on'],
      [['PgUp', 'PgDn'], 'A line back, a line on'],
      [['Home', 'End'], 'The first step, the last'],
      [['Space'], 'Plays'],
    ],
  },
  {
    where: 'Packing and counting',
    keys: [[['Enter'], 'Takes what the scale shows, or what is typed, and goes on to the next']],
  },
]

/** Every key that does something. */
export function Keys({ close }: { close: () => void }) {
  return (
    <Modal open title="Keys" footer={null} width={880} onCancel={close}>
      <div className={styles.groups}>
        {groups.map(({ where, keys }) => (
          <section key={where} aria-label={where}>
            <h3>{where}</h3>
            <dl>
              {keys.map(([all, does]) => (
                <div key={does}>
                  <dt>
                    {all.map((key) => (
                      <kbd key={key}>{key}</kbd>
                    ))}
                  </dt>
                  <dd>{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Modal>
  )
}
