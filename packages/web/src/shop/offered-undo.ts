/** What was done last and can be undone, for as long as that is offered. */
let offered: (() => void) | undefined

/** Offers to undo something, until it is undone, withdrawn, or something else is offered. */
export function offerUndo(undo: () => void) {
  const run = () => {
    withdraw()
    undo()
  }
  const withdraw = () => {
    if (offered === run) offered = undefined
  }
  offered = run
  return { run, withdraw }
}

/** @returns whether there was something to undo */
export function undoWhatIsOffered(): boolean {
  const undo = offered
  undo?.()
  return undo !== undefined
}
