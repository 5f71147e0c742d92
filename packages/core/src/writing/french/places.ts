import { beadsOf, type PlaceTold } from '../../stitch/place-told'

/** Names that the notation gives by itself. */
const wholes: Readonly<Record<string, string>> = {
  new: '«dernières prises»',
  front: '«bord avant»',
  back: '«bord arrière»',
}

/** "des" where "les" would follow. */
export const of = (words: string): string => (words.startsWith('les ') ? `des ${words.slice(4)}` : `de ${words}`)

/**
 * "la perle 4 de «frame» (T)", "la dernière perle de «bail»", "la A numéro 7"; after "dans", "sur", "avec" or `of`.
 *
 * @param which of several that are only named by their letter, or by that and what they belong to
 */
export function placeWords(told: PlaceTold, which: 'each' | 'nearest' = 'nearest'): string {
  const { base, steps, beads } = told
  const article = () => (which === 'each' ? 'chaque' : beadsOf(told) > 1 ? 'les' : 'la')
  let whole = 'name' in base ? (wholes[base.name] ?? `«${base.name}»`) : ''
  let kind = 'role' in base ? base.role : 'perle'
  let said =
    whole || (which === 'each' ? `chaque ${kind}` : beadsOf(told) > 1 ? `la ${kind} la plus proche` : `la ${kind}`)
  let hole = ''
  let named = false
  for (const step of steps) {
    switch (step.type) {
      case 'role':
        kind = step.role
        said = `${article()} ${kind} ${of(whole)}`
        break
      case 'nth':
        said = whole ? `la ${kind} ${step.nth} ${of(whole)}` : `la ${kind} numéro ${step.nth}`
        named = true
        break
      case 'word': {
        const belongs = whole ? ` ${of(whole)}` : ''
        if (step.word === 'first') said = `la première ${kind}${belongs}`
        else if (step.word === 'last') said = `la dernière ${kind}${belongs}`
        else if (step.word === 'middle') said = `la ${kind} du milieu${belongs}`
        else {
          whole = step.word === 'prev' ? `${whole} précédent` : `${whole} (${step.word})`
          said = whole
          break
        }
        named = true
        break
      }
      case 'range':
        said = `les ${kind === 'perle' ? 'perles' : kind} ${step.from} à ${step.to} ${of(whole)}`
        break
      case 'half':
        said = `la ${step.second ? 'seconde' : 'première'} moitié ${of(said)}`
        break
      case 'next':
        said = step.count === 1 ? `la perle suivante ${of(whole)}` : `les ${step.count} perles suivantes ${of(whole)}`
        break
      case 'in':
        whole = placeWords(step.place)
        said = `${article()} ${kind} dans ${whole}`
        break
      case 'bore':
        hole = `${beadsOf(told) > 1 ? ', chacune' : ''} par son ${step.bore === 2 ? 'second' : 'premier'} trou`
        break
    }
  }
  const [only] = beads
  const letter = named && kind === 'perle' && only && beadsOf(told) === 1 ? ` (${only.role})` : ''
  return said + letter + hole
}
