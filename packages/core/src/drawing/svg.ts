/** A view as a file of its own: for documents, the command line and anything that reads SVG. */
import type { View, ViewBead, ViewBody, ViewShape } from './view'

export interface SvgChoice {
  readonly title: string
  /** By role; "stone" is that of a stone. Roles without one are white. */
  readonly colours?: Readonly<Record<string, string>>
  /** Its form is not sound: it says so in the drawing itself. */
  readonly unsound?: boolean
}

export const ink = '#22302b'
/** Of the thread's way through one line. */
export const wayColour = '#9a3f2b'

/**
 * How beads of one statement are told apart without colour: new ones filled with a heavy edge, passed ones pale with a middling edge and
 * a bar along the hole, earlier work in thin dashed outline.
 */
export const stateLook = {
  new: { fill: undefined, edge: 0.26 },
  passed: { fill: '#e8e3d6', edge: 0.16 },
} as const
export const earlierLook = { fill: '#ffffff', edge: 0.08, dash: '0.3 0.2' } as const

export function svgOf(view: View, { title, colours = {}, unsound = false }: SvgChoice): string {
  const [x, y, width, height] = view.box
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${x} ${y} ${width} ${height}" width="${width}mm" height="${height}mm" role="img">`,
    `<title>${escaped(title)}</title>`,
    ...view.shapes.map((shape) => shapeOf(shape, view.bodies, colours)),
    ...wayOf(view),
    ...(unsound
      ? [
          `<text x="${x + width * 0.02}" y="${y + height * 0.98}" font-size="${Math.min(width, height) * 0.06}" fill="${wayColour}">The form is not sound.</text>`,
        ]
      : []),
    '</svg>',
    '',
  ].join('\n')
}

function shapeOf(shape: ViewShape, bodies: View['bodies'], colours: Readonly<Record<string, string>>): string {
  switch (shape.type) {
    case 'bead':
      return beadOf(shape, bodies, colours[shape.role] ?? '#ffffff')
    case 'stone':
      return [
        `<path d="${shape.path}" fill="${colours.stone ?? '#dfe3df'}" stroke="${ink}" stroke-width="0.12"/>`,
        ...(shape.lines
          ? [
              `<path d="${shape.lines}" fill="none" stroke="${ink}" stroke-width="${lineLook.edge}" stroke-opacity="${lineLook.opacity}"/>`,
            ]
          : []),
      ].join('')
    case 'wire':
      return `<path d="${shape.path}" fill="none" stroke="#9aa09c" stroke-width="${shape.width}"/>`
    case 'earlier':
      return `<path d="${shape.path}" fill="${earlierLook.fill}" fill-opacity="0.6" stroke="${ink}" stroke-width="${earlierLook.edge}" stroke-dasharray="${earlierLook.dash}"/>`
    case 'thread':
      return `<path d="${shape.path}" stroke="#6d6a60" stroke-width="0.14" stroke-linecap="round"/>`
  }
}

/** Of an edge or facet on a bead. */
export const lineLook = { edge: 0.06, opacity: 0.7 } as const

function beadOf({ cx, cy, turn, state, body }: ViewBead, bodies: View['bodies'], colour: string): string {
  const look = state ? stateLook[state] : undefined
  const { outline, lines, mouths, length } = bodies[body] as ViewBody
  const parts = [
    `<path d="${outline}" fill="${look?.fill ?? colour}" stroke="${ink}" stroke-width="${look?.edge ?? 0.11}" stroke-linejoin="round"/>`,
  ]
  if (lines)
    parts.push(
      `<path d="${lines}" fill="none" stroke="${ink}" stroke-width="${lineLook.edge}" stroke-opacity="${lineLook.opacity}"/>`,
    )
  for (const { x, y, rx, ry } of mouths)
    parts.push(`<ellipse cx="${x}" cy="${y}" rx="${rx}" ry="${ry}" fill="${ink}" fill-opacity="0.7"/>`)
  if (state === 'passed')
    parts.push(`<path d="M${-length * 0.32} 0H${length * 0.32}" stroke="${ink}" stroke-width="0.18"/>`)
  return `<g transform="translate(${cx} ${cy}) rotate(${turn})">${parts.join('')}</g>`
}

/** The thread of one statement: in at the open ring, out at the arrow's dot. */
function wayOf({ way }: View): string[] {
  if (!way) return []
  const [[fx, fy], [tx, ty]] = [way.from, way.to]
  return [
    `<path d="${way.path}" fill="none" stroke="${wayColour}" stroke-width="0.2" stroke-linejoin="round" stroke-linecap="round"/>`,
    `<circle cx="${fx}" cy="${fy}" r="0.45" fill="#ffffff" stroke="${wayColour}" stroke-width="0.18"><title>The thread comes in</title></circle>`,
    `<circle cx="${tx}" cy="${ty}" r="0.45" fill="${wayColour}" stroke="#ffffff" stroke-width="0.1"><title>The thread goes out</title></circle>`,
  ]
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')
