/** What is done from one place to the next, as it stands in a list: picked up, passed, gone back through. */

export interface MoveItem {
  /** The bead that is picked up or passed. */
  readonly bead: number
  readonly letter: string
  readonly pick: boolean
  /** Back through a bead that the same list has picked up. */
  readonly back: boolean
  /** As it stands in a list; undefined where it cannot. */
  readonly text: string | undefined
}

/** Going back through beads of its own is said by how many they are: `<3`, or `<2A`. */
export function moveList(items: readonly MoveItem[]): string[] | undefined {
  const list: string[] = []
  const picked: MoveItem[] = []
  for (let at = 0; at < items.length; ) {
    const item = items[at] as MoveItem
    if (item.pick) picked.push(item)
    const gone = item.back ? goneBack(items.slice(at), picked) : undefined
    const text = gone?.text ?? item.text
    if (text === undefined) return undefined
    list.push(text)
    at += gone?.count ?? 1
  }
  return list
}

function goneBack(
  items: readonly MoveItem[],
  picked: readonly MoveItem[],
): { readonly text: string; readonly count: number } | undefined {
  const letter = items[0]?.letter
  const follows = (own: readonly MoveItem[]) => {
    let n = 0
    while (items[n]?.back && items[n]?.bead === own[own.length - 1 - n]?.bead) n++
    return n
  }
  const any = follows(picked)
  const alike = follows(picked.filter((each) => each.letter === letter))
  if (any === 0 && alike === 0) return undefined
  return any >= alike ? { text: `<${any}`, count: any } : { text: `<${alike}${letter}`, count: alike }
}
