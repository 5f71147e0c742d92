/** The demo shop's pictures: its own pieces as the engine lays them, on a cloth of the bench. */
import { roleColours } from '@tessellum/core/drawing/role-colours'
import { sceneOf } from '@tessellum/core/drawing/scene'
import { svgOf } from '@tessellum/core/drawing/svg'
import { type Face, viewOf } from '@tessellum/core/drawing/view'
import { formedPattern } from '@tessellum/core/form/form-pattern'
import { madeIn } from '@tessellum/core/writing/edition'
import type { PictureKind } from '@tessellum/core/writing/pictures'
import type { StepKey } from '@tessellum/core/writing/step-words'
import sharp from 'sharp'
import { listColourways } from '../colourways/store'
import type { Session } from '../database/connect'
import { type PictureFiles, pictureFiles } from '../documents/picture-files'
import { gather } from '../editions/gather'
import type { WorkerPool } from '../jobs/pool'
import { insertPicture } from '../patterns/pictures'

interface DemoPicture {
  readonly pattern: string
  readonly colourway: string
  readonly kind: PictureKind
  readonly step?: StepKey
  readonly caption: string
  readonly face?: Face
  /** What is on the bench: all of it, when absent. */
  readonly cut?: (source: string) => string
  readonly cloth?: string
}

const upTo = (line: string) => (source: string) => source.slice(0, source.indexOf(line) + line.length)

export const demoPictures: readonly DemoPicture[] = [
  { pattern: 'Windlass pendant', colourway: 'Lantern', kind: 'finished', caption: 'In Lantern, size classic' },
  {
    pattern: 'Windlass pendant',
    colourway: 'Ember and rust',
    kind: 'finished',
    caption: 'In Ember and rust',
    cloth: '#c9c2b4',
  },
  {
    pattern: 'Windlass pendant',
    colourway: 'Lantern',
    kind: 'step',
    step: { part: 'bezel', text: 'place S', nth: 1 },
    caption: 'The stone lies in the cup, seen from its back',
    face: 'back',
    cut: upTo('place S'),
  },
  {
    pattern: 'Windlass pendant',
    colourway: 'Lantern',
    kind: 'fault',
    step: { part: 'bezel', text: 'round C', nth: 4 },
    caption: 'with one round left out the edge does not reach over the stone, which falls out',
    face: 'back',
    cut: (source) => upTo('place S\n  round C')(source),
  },
  { pattern: 'Heron earrings', colourway: 'Winter heron', kind: 'finished', caption: '', cloth: '#d7cfc6' },
  { pattern: 'Sluicegate pendant', colourway: 'Slate water', kind: 'finished', caption: '', cloth: '#d9d3c4' },
]

const [width, height] = [1500, 1125]

/** As if photographed from above, with its shadow on the cloth. */
function photograph(svg: string, cloth: string): Promise<Buffer> {
  const piece = svg.replace(
    /<svg ([^>]*?)width="[^"]*" height="[^"]*"/,
    `<svg $1x="${width * 0.12}" y="${height * 0.07}" width="${width * 0.76}" height="${height * 0.86}" preserveAspectRatio="xMidYMid meet"`,
  )
  return sharp(
    Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">
<defs>
<filter id="weave" x="0" y="0" width="100%" height="100%"><feTurbulence type="fractalNoise" baseFrequency="0.9 0.08" numOctaves="2" seed="4"/><feColorMatrix values="0 0 0 0 0.35  0 0 0 0 0.3  0 0 0 0 0.22  0.5 0 0 0 -0.12"/></filter>
<radialGradient id="lamp" cx="32%" cy="22%" r="95%"><stop offset="0" stop-color="#fff" stop-opacity="0.5"/><stop offset="0.55" stop-color="#fff" stop-opacity="0"/><stop offset="1" stop-color="#2a241a" stop-opacity="0.34"/></radialGradient>
<filter id="shadow" x="-10%" y="-10%" width="125%" height="125%"><feGaussianBlur in="SourceAlpha" stdDeviation="9"/><feOffset dx="10" dy="14"/><feColorMatrix values="0 0 0 0 0.12  0 0 0 0 0.1  0 0 0 0 0.07  0 0 0 0.5 0"/><feMerge><feMergeNode/><feMergeNode in="SourceGraphic"/></feMerge></filter>
</defs>
<rect width="100%" height="100%" fill="${cloth}"/><rect width="100%" height="100%" filter="url(#weave)"/><rect width="100%" height="100%" fill="url(#lamp)"/>
<g filter="url(#shadow)">${piece}</g>
</svg>`),
  )
    .jpeg({ quality: 90 })
    .toBuffer()
}

interface Asked {
  readonly tx: Session
  readonly workers: WorkerPool
  readonly by: number
  readonly patterns: ReadonlyMap<string, number>
}

export async function takePictures({ tx, workers, by, patterns }: Asked): Promise<void> {
  const taken: Promise<PictureFiles>[] = []
  for (const { pattern, colourway, face = 'front', cut, cloth } of demoPictures) {
    const patternId = patterns.get(pattern) as number
    const chosenWay = (await listColourways(tx, patternId)).find(({ name }) => name === colourway)
    const gathered = await gather({ db: tx, workers }, patternId, { size: '', colourway: chosenWay?.id })
    const { chosen, choices } = madeIn(gathered, gathered.size)
    const source = cut ? cut(gathered.source) : gathered.source
    const { evaluated, form } = formedPattern(source, choices)
    if (!form) throw new Error(`${pattern} has no form to take a picture of.`)
    const svg = svgOf(viewOf(sceneOf(evaluated, form), { face }), {
      title: pattern,
      colours: { ...roleColours(evaluated.report.beads.map(({ role }) => role)), ...chosen.colours },
    })
    taken.push(photograph(svg, cloth ?? '#ddd5c5').then((bytes) => pictureFiles(bytes, null)))
  }
  const files = await Promise.all(taken)
  for (const [i, { pattern, kind, step = null, caption }] of demoPictures.entries())
    await insertPicture(
      tx,
      { patternId: patterns.get(pattern) as number, kind, step, caption, position: i + 1, addedBy: by },
      files[i] as PictureFiles,
    )
}
