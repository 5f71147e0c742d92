/** A view painted on a PDF page, as svgOf draws it in a file. */
import { earlierLook, ink, lineLook, stateLook, wayColour } from '@tessellum/core/drawing/svg'
import type { View, ViewBead, ViewBody, ViewShape } from '@tessellum/core/drawing/view'

/** What is used of the page's painter; react-pdf's own type leaves out that its calls chain. */
export interface Painter {
  save(): Painter
  restore(): Painter
  translate(x: number, y: number): Painter
  scale(x: number): Painter
  rotate(degrees: number): Painter
  path(d: string): Painter
  ellipse(x: number, y: number, rx: number, ry: number): Painter
  circle(x: number, y: number, r: number): Painter
  moveTo(x: number, y: number): Painter
  lineTo(x: number, y: number): Painter
  lineWidth(width: number): Painter
  dash(length: number, options: { space: number }): Painter
  fillOpacity(opacity: number): Painter
  fill(colour: string): Painter
  stroke(colour: string): Painter
  fillAndStroke(fill: string, stroke: string): Painter
}

/** Fits the view's box into so much room, in the middle of it. */
export function paintView(
  painter: Painter,
  { box: [left, top, across, down], shapes, bodies, way }: View,
  colours: Readonly<Record<string, string>>,
  width: number,
  height: number,
): void {
  const times = Math.min(width / across, height / down)
  painter.save()
  painter.translate((width - across * times) / 2, (height - down * times) / 2)
  painter.scale(times).translate(-left, -top)
  for (const shape of shapes) paintShape(painter, shape, bodies, colours)
  if (way) {
    painter.lineWidth(0.2).path(way.path).stroke(wayColour)
    painter.lineWidth(0.18).circle(way.from[0], way.from[1], 0.45).fillAndStroke('#ffffff', wayColour)
    painter.circle(way.to[0], way.to[1], 0.45).fill(wayColour)
  }
  painter.restore()
}

function paintShape(
  painter: Painter,
  shape: ViewShape,
  bodies: View['bodies'],
  colours: Readonly<Record<string, string>>,
): void {
  switch (shape.type) {
    case 'bead':
      paintBead(painter, shape, bodies, colours[shape.role] || '#ffffff')
      return
    case 'stone':
      painter
        .lineWidth(0.12)
        .path(shape.path)
        .fillAndStroke(colours.stone ?? '#e7e2d6', ink)
      if (shape.lines) painter.lineWidth(lineLook.edge).path(shape.lines).stroke(ink)
      return
    case 'wire':
      painter.lineWidth(shape.width).path(shape.path).stroke('#9aa09c')
      return
    case 'earlier': {
      const [on = 0.3, off = 0.2] = earlierLook.dash.split(' ').map(Number)
      painter.save().lineWidth(earlierLook.edge).dash(on, { space: off }).fillOpacity(0.6)
      painter.path(shape.path).fillAndStroke(earlierLook.fill, ink)
      painter.restore()
      return
    }
    case 'thread':
      painter.lineWidth(0.14).path(shape.path).stroke('#6d6a60')
  }
}

function paintBead(
  painter: Painter,
  { cx, cy, turn, body, state }: ViewBead,
  bodies: View['bodies'],
  colour: string,
): void {
  const { outline, lines, mouths, length } = bodies[body] as ViewBody
  const look = state ? stateLook[state] : undefined
  painter.save().translate(cx, cy).rotate(turn)
  painter
    .lineWidth(look?.edge ?? 0.12)
    .path(outline)
    .fillAndStroke(look?.fill ?? colour, ink)
  if (lines) painter.lineWidth(lineLook.edge).path(lines).stroke(ink)
  for (const { x, y, rx, ry } of mouths) painter.save().fillOpacity(0.7).ellipse(x, y, rx, ry).fill(ink).restore()
  if (state === 'passed')
    painter
      .lineWidth(0.18)
      .moveTo(-length * 0.32, 0)
      .lineTo(length * 0.32, 0)
      .stroke(ink)
  painter.restore()
}
