import { beadsOf, type PlaceTold } from '../../stitch/place-told'

const ordinals: Readonly<Record<string, string>> = { first: 'eerste', middle: 'middelste', last: 'laatste' }

/** Names that the notation gives by itself. */
const wholes: Readonly<Record<string, string>> = {
  new: '«zojuist opgenomen»',
  front: '«voorste rand»',
  back: '«achterste rand»',
}

/**
 * "kraal 4 van «frame» (T)", "de laatste kraal van «bail»", "A nummer 7".
 *
 * @param which of several that are only named by their letter, or by that and what they belong to
 */
export function placeWords(told: PlaceTold, which: 'each' | 'nearest' = 'nearest'): string {
  const { base, steps, beads } = told
  const each = which === 'each' ? 'elke ' : ''
  let whole = 'name' in base ? (wholes[base.name] ?? `«${base.name}»`) : ''
  let kind = 'role' in base ? base.role : 'kraal'
  let said =
    whole || (which === 'each' ? `elke ${kind}` : beadsOf(told) > 1 ? `de dichtstbijzijnde ${kind}` : `de ${kind}`)
  let hole = ''
  let named = false
  for (const step of steps) {
    switch (step.type) {
      case 'role':
        kind = step.role
        said = `${each}${kind} van ${whole}`
        break
      case 'nth':
        said = whole ? `${kind} ${step.nth} van ${whole}` : `${kind} nummer ${step.nth}`
        named = true
        break
      case 'word':
        if (ordinals[step.word]) {
          said = `de ${ordinals[step.word]} ${kind}${whole ? ` van ${whole}` : ''}`
          named = true
        } else {
          whole = step.word === 'prev' ? `${whole} ervoor` : `${whole} (${step.word})`
          said = whole
        }
        break
      case 'range':
        said = `${kind === 'kraal' ? 'kralen' : kind} ${step.from} tot en met ${step.to} van ${whole}`
        break
      case 'half':
        said = `de ${step.second ? 'tweede' : 'eerste'} helft van ${said}`
        break
      case 'next':
        said = `de volgende ${step.count === 1 ? 'kraal' : `${step.count} kralen`} van ${whole}`
        break
      case 'in':
        whole = placeWords(step.place)
        said = `${each}${kind} in ${whole}`
        break
      case 'bore':
        hole = `${beadsOf(told) > 1 ? ', elk' : ''} via het ${step.bore === 2 ? 'tweede' : 'eerste'} gat`
        break
    }
  }
  const [only] = beads
  const letter = named && kind === 'kraal' && only && beadsOf(told) === 1 ? ` (${only.role})` : ''
  return said + letter + hole
}
