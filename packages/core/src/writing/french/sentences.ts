/** The sentences of a written pattern, in French: one for each thing a statement can do. Told in infinitives, as French patterns are. */
import { type Action, type CautionAbout, plainRing, readsOtherwiseBackwards } from '../../stitch/action'
import type { PlaceTold } from '../../stitch/place-told'
import { beadsIn, halves } from '../../stitch/runs'
import type { ThreadSettings } from '../../thread/settings'
import { capital } from '../language'
import { strandsTold } from '../strands'
import { called, list, moveWords, passing, sayBeads, sayRun, sayTimes } from './moves'
import { placeWords } from './places'
import { round } from './round'

const eachOf = (target: PlaceTold) => placeWords(target, 'each')

const edges = { front: 'avant', back: 'arrière' } as const

export function repeatSentence(steps: number, times: readonly number[], at: PlaceTold | undefined): string {
  const what = steps === 1 ? "Faire l'étape suivante" : `Faire les ${steps} étapes suivantes l'une après l'autre`
  if (at)
    return `${what} à chacune des ${list(times.map(String))} places (${eachOf(at)}); cheminer de l'une à la suivante par le plus court chemin.`
  const [only] = times
  if (times.length === 1 && only !== undefined) return `${what}, ${sayTimes(only)} en tout.`
  return `${what}: ${times.map((each, i) => `${sayTimes(each)} la ${i + 1}e fois`).join(', ')}.`
}

export function sentenceFor(action: Action, settings: ThreadSettings): string | undefined {
  switch (action.type) {
    case 'ring': {
      const { pattern, times } = plainRing(action)
      const repeats = times === 1 ? '' : `, ${sayTimes(times)}`
      return `Enfiler ${sayBeads(action.beads)}: prendre ${sayRun(pattern)}${repeats}. ${closing[action.closing]}${called(action.name)}`
    }
    case 'round':
      return round(action)
    case 'square':
      return `Rang ${action.round} en point carré, ${action.stitches === 1 ? '1 point' : `${action.stitches} points`}: prendre ${action.cycle.map(sayRun).join(', puis ')}${action.turns === 1 ? '' : `; ${sayTimes(action.turns)} à la suite`}. Après chaque point, passer dans autant de perles du rang du dessous, dans leur sens, et de nouveau dans celles qui viennent d'être prises. Faire demi-tour.${called(action.name)}`
    case 'other edge':
      return `En suivant le fil déjà posé, cheminer dans ${sayBeads(action.passed)} jusqu'au bord ${edges[action.edge]} et sortir d'une perle ${action.fresh ? "de l'anneau" : 'en saillie'}.`
    case 'to':
      return action.passed === 0
        ? `L'aiguille est déjà dans ${placeWords(action.target)}.`
        : `Cheminer dans ${sayBeads(action.passed)} jusque dans ${placeWords(action.target)}.`
    case 'place':
      if (action.another)
        return `Serrer aussi autour de la pierre ${action.role} cet anneau de ${action.another} perles.`
      return `Poser la pierre ${action.role}, la face vers l'avant, et serrer le fil tout autour.`
    case 'loop': {
      const again =
        action.over > 1 ? `les ${action.over} dernières perles traversées` : `la ${action.through} d'où sort l'aiguille`
      return `Prendre ${sayRun(action.beads)} et ${action.back ? 'passer en sens inverse' : 'repasser dans le même sens'} dans ${again}, pour former une boucle.${called(action.name)}`
    }
    case 'reinforce':
      return `Repasser encore ${sayTimes(action.times)} dans les perles ${reinforced[action.what]}, sans en prendre; serrer fermement, sans jamais forcer l'aiguille.`
    case 'string':
      return `Enfiler ${sayRun(action.beads)} et les retenir avec une perle d'arrêt.${called(action.name)}`
    case 'pick':
      return `${action.moves.length === 0 ? `Prendre ${sayRun(action.beads)}` : capital(moveWords(action.moves).join(', puis '))}.${called(action.name)}`
    case 'through':
      return `Passer ${action.targets.map(passing).join(', puis ')}.`
    case 'turn':
      return "Changer de trou: entrer dans l'autre trou de la même perle et revenir par là."
    case 'turn over':
      return `Retourner l'ouvrage: la face ${edges[action.face]} est maintenant dessus.`
    case 'hangs':
      return `La pièce est suspendue par ${placeWords(action.target)}.`
    case 'under':
      return 'Attraper le pont de fil entre les perles du dessous.'
    case 'go':
      return action.back
        ? `Contourner la perle d'où sort l'aiguille et revenir dans ${action.beads === 1 ? 'la perle' : `les ${action.beads} perles`} d'avant, sur le chemin du fil.`
        : `Continuer dans ${sayBeads(action.beads)} de ce passage.`
    case 'weave': {
      const on = Math.ceil(beadsIn(action.beads) / 2)
      return `Faire ${action.units === 1 ? '1 unité' : `${action.units} unités`} en angle droit: ${
        action.begins ? `prendre d'abord 1 ${action.begins}, qui appartient à la première unité; ` : ''
      }pour chacune prendre ${sayRun(action.beads)}, repasser dans la perle partagée avec l'unité d'avant${action.twice ? ', refaire le tour de toutes ces perles' : ''} et continuer dans ${on === 1 ? 'la première perle' : `les ${on} premières perles`} de celles qui viennent d'être prises.${
        action.units > 1 && readsOtherwiseBackwards(action.beads)
          ? ` Une unité sur deux, les prendre dans l'ordre inverse, ${sayRun([...action.beads].reverse())}, pour que chaque bord garde sa perle.`
          : ''
      }${called(action.name)}`
    }
    case 'join': {
      const [first, second] = halves(action.beads)
      return `Relier avec ${placeWords(action.target)}: ${[
        ...(first.length > 0 ? [`prendre ${sayRun(first)}`] : []),
        action.back ? 'y passer en sens inverse' : 'y passer',
        ...(second.length > 0 ? [`prendre ${sayRun(second)}`] : []),
        "repasser dans la perle d'où sortait l'aiguille",
      ].join(', puis ')}.`
    }
    case 'stand':
      return stand(action)
    case 'fringe':
      return fringe(action)
    case 'rail':
      return `À partir de l'aiguille, les prochains tours vont dans ${action.targets.map(eachOf).join(', puis ')} (${sayBeads(action.beads)}). Ceci est «${action.name}».`
    case 'attach':
      return `Fixer ${action.item} sur ${placeWords(action.target)}.`
    case 'caution':
      return cautionAbout[action.about]
    case 'repeat':
      return undefined
    case 'new thread':
      if (action.tail)
        return "Laisser ce fil en attente, enfiler son bout de départ dans l'aiguille et continuer avec celui-ci."
      return action.at
        ? `Terminer ce fil et en commencer un nouveau dans ${placeWords(action.at)}.`
        : "Terminer ce fil et en commencer un nouveau dans la perle d'où il sortait."
    case 'finish':
      return ending(action.ending, settings)
    case 'check':
    case 'note':
      return action.text
    case 'let':
      return undefined
  }
}

const reinforced = {
  ring: 'de cet anneau',
  round: 'de ce tour',
  loop: 'de cette boucle',
  run: 'de ce passage',
} as const

function stand(action: Extract<Action, { type: 'stand' }>): string {
  const where = action.row ? 'sur le rang du dessous' : 'autour du noyau'
  const more =
    action.increases > 0
      ? ` Cela fait ${action.increases} de plus que le rang du dessous: les répartir également, mais pas à la première ni à la dernière perle.`
      : ''
  return `Dresser ${action.stitches} ${action.role} ${where}: chaque fois en prendre une, attraper le fil du dessous et remonter dans la perle; relier la dernière à la première en y descendant et en y remontant.${more}${called(action.name)}`
}

function fringe({ strands, keep, between, into, fromEnd, name }: Extract<Action, { type: 'fringe' }>): string {
  const told = strandsTold(strands, ({ beads, end }) => sayRun(beads) + (end.length > 0 ? `, puis ${sayRun(end)}` : ''))
  const ends = beadsIn(strands[0]?.end ?? [])
  const turning =
    ends === 0 ? 'sans la dernière perle' : ends === 1 ? 'sans la perle du bout' : 'sans les perles du bout'
  const kept = keep > 0 ? ` ni les ${keep} du haut` : ''
  const from = into
    ? `, une à chaque place (${eachOf(into)})${fromEnd ? ', de la dernière à la première' : ''}, en cheminant ${between.length > 0 ? "jusqu'à la première" : 'de place en place'} par le plus court chemin`
    : ''
  const spacing =
    between.length > 0
      ? `, en prenant de l'une à la suivante ${sayRun(between)}${into ? ' et en passant dans la perle qui la porte' : ''}`
      : ''
  const many =
    strands.length > 1 || into
      ? `Suspendre ${strands.length === 1 ? '1 frange' : `${strands.length} franges`}${from}${spacing}. `
      : ''
  return `${many}Prendre ${told}; remonter dans la frange ${turning}${kept}.${called(name)}`
}

const cautionAbout: Readonly<Record<CautionAbout, string>> = {
  flame:
    'Attention: brûle-fil et briquet brûlent. Les tenir loin des cheveux, des tissus et des enfants, aérer, et ne pas en utiliser là où les flammes sont interdites.',
  glue: 'Attention: aérer et suivre les indications de la colle.',
  pliers: 'Attention: le verre peut casser. Porter des lunettes de protection avec des pinces.',
  magnet: 'Attention: tenir les aimants loin des jeunes enfants et des implants médicaux.',
  nickel: "Attention: certaines personnes ne supportent pas le nickel ou d'autres métaux sur la peau.",
}

const closing: Readonly<Record<ThreadSettings['closing'], string>> = {
  'pass again': "Repasser dans toutes pour fermer l'anneau.",
  knot: "Nouer les bouts d'un nœud plat pour fermer l'anneau.",
  'knot and pass again': "Nouer les bouts d'un nœud plat et repasser dans toutes.",
  'stop bead': "Tenir l'anneau fermé avec une perle d'arrêt et le nouer à la fin.",
}

function ending(way: ThreadSettings['ending'], settings: ThreadSettings): string {
  const hitches = `${settings.hitchesPerEnd} demi-clés`
  switch (way) {
    case 'hitch and weave':
      return `Rentrer les deux bouts avec ${hitches} entre les perles en chemin, et couper.`
    case 'weave':
      return 'Rentrer les deux bouts en faisant deux fois demi-tour en chemin, et couper.'
    case 'melt':
      return `Rentrer les deux bouts avec ${hitches}, couper et sceller au brûle-fil.`
    case 'glue':
      return `Rentrer les deux bouts avec ${hitches}, fixer la dernière d'une goutte de colle et couper une fois sec.`
  }
}
