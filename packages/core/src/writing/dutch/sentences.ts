/** The sentences of a written pattern, in Dutch: one for each thing a statement can do. Told in infinitives. */
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

const edges = { front: 'voorste', back: 'achterste' } as const

export function repeatSentence(steps: number, times: readonly number[], at: PlaceTold | undefined): string {
  const what = steps === 1 ? 'De volgende stap' : `De volgende ${steps} stappen na elkaar`
  if (at)
    return `${what} op elk van ${list(times.map(String))} plaatsen uitvoeren (${eachOf(at)}); van de ene naar de volgende via de kortste weg rijgen.`
  const [only] = times
  if (times.length === 1 && only !== undefined) return `${what} in totaal ${sayTimes(only)} uitvoeren.`
  return `${what} uitvoeren: ${times.map((each, i) => `${sayTimes(each)} bij de ${i + 1}e keer`).join(', ')}.`
}

export function sentenceFor(action: Action, settings: ThreadSettings): string | undefined {
  switch (action.type) {
    case 'ring': {
      const { pattern, times } = plainRing(action)
      const repeats = times === 1 ? '' : `, ${sayTimes(times)}`
      return `${sayBeads(action.beads)} aanrijgen: ${sayRun(pattern)} opnemen${repeats}. ${closing[action.closing]}${called(action.name)}`
    }
    case 'round':
      return round(action)
    case 'square':
      return `Rij ${action.round} in vierkantsteek, ${action.stitches === 1 ? '1 steek' : `${action.stitches} steken`}: ${action.cycle.map(sayRun).join(', dan ')} opnemen${action.turns === 1 ? '' : `; ${sayTimes(action.turns)} op rij`}. Na elke steek door evenveel kralen van de rij eronder in hun werkrichting gaan en nogmaals door de zojuist opgenomen kralen. Keren.${called(action.name)}`
    case 'other edge':
      return `De aanwezige draad volgend door ${sayBeads(action.passed)} naar de ${edges[action.edge]} rand rijgen en uit een ${action.fresh ? 'kraal van de ring' : 'uitstekende kraal'} komen.`
    case 'to':
      return action.passed === 0
        ? `De naald is al bij ${placeWords(action.target)}.`
        : `Door ${sayBeads(action.passed)} naar ${placeWords(action.target)} rijgen.`
    case 'place':
      if (action.another)
        return `Ook deze ring van ${action.another} kralen rond de steen ${action.role} vast aantrekken.`
      return `De steen ${action.role} met de voorkant naar voren inleggen en de draad rondom vast aantrekken.`
    case 'loop': {
      const again =
        action.over > 1
          ? `door de laatste ${action.over} kralen waar de naald door kwam`
          : `door de ${action.through} waar de naald uit kwam`
      return `${sayRun(action.beads)} opnemen en ${action.back ? 'terug' : 'nogmaals in dezelfde richting'} ${again} gaan, zodat er een lus ontstaat.${called(action.name)}`
    }
    case 'reinforce':
      return `Nog ${sayTimes(action.times)} door de kralen van ${reinforced[action.what]} gaan, zonder er op te nemen; stevig aantrekken, maar de naald nooit met geweld doorduwen.`
    case 'string':
      return `${sayRun(action.beads)} aanrijgen en met een stopkraal vasthouden.${called(action.name)}`
    case 'pick':
      return `${action.moves.length === 0 ? `${sayRun(action.beads)} opnemen` : capital(moveWords(action.moves).join(', dan '))}.${called(action.name)}`
    case 'through':
      return `${capital(action.targets.map(passing).join(', dan '))} gaan.`
    case 'turn':
      return 'Van gat wisselen: in het andere gat van dezelfde kraal gaan en daardoor terugkomen.'
    case 'turn over':
      return `Het werk omkeren: nu ligt de ${action.face === 'front' ? 'voorkant' : 'achterkant'} boven.`
    case 'hangs':
      return `Het stuk hangt aan ${placeWords(action.target)}.`
    case 'under':
      return 'De draadbrug tussen de kralen eronder oppakken.'
    case 'go':
      return action.back
        ? `Om de kraal heen waar de naald uit kwam, en door ${action.beads === 1 ? 'de kraal' : `de ${action.beads} kralen`} ervoor langs de weg van de draad teruggaan.`
        : `Door ${sayBeads(action.beads)} daarvan verder gaan.`
    case 'weave': {
      const on = Math.ceil(beadsIn(action.beads) / 2)
      return `${action.units === 1 ? '1 eenheid' : `${action.units} eenheden`} in rechte hoek maken: ${
        action.begins ? `eerst 1 ${action.begins} opnemen, die bij de eerste eenheid hoort; ` : ''
      }voor elke ${sayRun(action.beads)} opnemen, nogmaals door de gedeelde kraal van de eenheid ervoor gaan${action.twice ? ', al deze kralen nog eens rondgaan' : ''} en door de eerste ${sayBeads(on)} van de zojuist opgenomen verder gaan.${
        action.units > 1 && readsOtherwiseBackwards(action.beads)
          ? ` Voor elke tweede eenheid in omgekeerde volgorde opnemen, ${sayRun([...action.beads].reverse())}, zodat elke kant haar kraal houdt.`
          : ''
      }${called(action.name)}`
    }
    case 'join': {
      const [first, second] = halves(action.beads)
      return `Verbinden met ${placeWords(action.target)}: ${[
        ...(first.length > 0 ? [`${sayRun(first)} opnemen`] : []),
        action.back ? 'er achterwaarts doorheen gaan' : 'er doorheen gaan',
        ...(second.length > 0 ? [`${sayRun(second)} opnemen`] : []),
        'nogmaals door de kraal gaan waar de naald uit kwam',
      ].join(', dan ')}.`
    }
    case 'stand':
      return stand(action)
    case 'fringe':
      return fringe(action)
    case 'rail':
      return `De volgende rondes gaan vanaf de naald door ${action.targets.map(eachOf).join(', dan ')} (${sayBeads(action.beads)}). Dit is «${action.name}».`
    case 'attach':
      return `${action.item} aan ${placeWords(action.target)} bevestigen.`
    case 'caution':
      return cautionAbout[action.about]
    case 'repeat':
      return undefined
    case 'new thread':
      if (action.tail) return 'Deze draad laten hangen, zijn begineinde in de naald doen en daarmee verder werken.'
      return action.at
        ? `Deze draad afhechten en een nieuwe beginnen door ${placeWords(action.at)}.`
        : 'Deze draad afhechten en een nieuwe beginnen door de kraal waar hij uit kwam.'
    case 'finish':
      return ending(action.ending, settings)
    case 'check':
    case 'note':
      return action.text
    case 'let':
      return undefined
  }
}

const reinforced = { ring: 'deze ring', round: 'deze ronde', loop: 'deze lus', run: 'dit stuk' } as const

function stand(action: Extract<Action, { type: 'stand' }>): string {
  const where = action.row ? 'op de rij eronder' : 'rond de kern'
  const more =
    action.increases > 0
      ? ` Dat zijn er ${action.increases} meer dan in de rij eronder: gelijkmatig verdelen, niet bij de eerste en niet bij de laatste kraal.`
      : ''
  return `${action.stitches} ${action.role} ${where} zetten: telkens één opnemen, de draad eronder pakken en door de kraal terug naar boven gaan; de laatste met de eerste verbinden door daar naar beneden en weer naar boven te gaan.${more}${called(action.name)}`
}

function fringe({ strands, keep, between, into, fromEnd, name }: Extract<Action, { type: 'fringe' }>): string {
  const told = strandsTold(strands, ({ beads, end }) => sayRun(beads) + (end.length > 0 ? `, dan ${sayRun(end)}` : ''))
  const ends = beadsIn(strands[0]?.end ?? [])
  const turning = `langs de ${ends === 0 ? 'laatste kraal' : ends === 1 ? 'eindkraal' : 'eindkralen'}`
  const kept = keep > 0 ? `, zonder de bovenste ${keep}` : ''
  const from = into
    ? `, een op elke plaats (${eachOf(into)})${fromEnd ? ', van de laatste naar de eerste' : ''}, via de kortste weg ${between.length > 0 ? 'naar de eerste' : 'erheen'} rijgen`
    : ''
  const spacing =
    between.length > 0
      ? `, van de ene naar de volgende ${sayRun(between)} opnemen${into ? ' en door de kraal gaan waar ze aan hangt' : ''}`
      : ''
  const many =
    strands.length > 1 || into
      ? `${strands.length === 1 ? '1 franje' : `${strands.length} franjes`} hangen${from}${spacing}. `
      : ''
  return `${many}${told} opnemen; ${turning} door de franje teruggaan${kept}.${called(name)}`
}

const cautionAbout: Readonly<Record<CautionAbout, string>> = {
  flame:
    'Voorzichtig: brander en aansteker branden. Weghouden van haar, stof en kinderen, de ruimte luchten, en niet gebruiken waar open vuur verboden is.',
  glue: 'Voorzichtig: de ruimte luchten en de aanwijzingen op de lijm volgen.',
  pliers: 'Voorzichtig: glas kan breken. Met een tang een veiligheidsbril dragen.',
  magnet: 'Voorzichtig: magneten weghouden van jonge kinderen en van medische implantaten.',
  nickel: 'Voorzichtig: sommige mensen verdragen nikkel of andere metalen niet op de huid.',
}

const closing: Readonly<Record<ThreadSettings['closing'], string>> = {
  'pass again': 'Nogmaals door alle kralen gaan om de ring te sluiten.',
  knot: 'De einden met een platte knoop verbinden om de ring te sluiten.',
  'knot and pass again': 'De einden met een platte knoop verbinden en nogmaals door alle kralen gaan.',
  'stop bead': 'De ring met een stopkraal gesloten houden en aan het eind knopen.',
}

function ending(way: ThreadSettings['ending'], settings: ThreadSettings): string {
  const hitches = `${settings.hitchesPerEnd} halve steken`
  switch (way) {
    case 'hitch and weave':
      return `Beide einden inwerken, onderweg met ${hitches} tussen de kralen, en afknippen.`
    case 'weave':
      return 'Beide einden inwerken, onderweg twee keer keren, en afknippen.'
    case 'melt':
      return `Beide einden met ${hitches} inwerken, afknippen en met de draadbrander dichtsmelten.`
    case 'glue':
      return `Beide einden met ${hitches} inwerken, de laatste met een druppel lijm vastzetten en na het drogen afknippen.`
  }
}
