import type { StoneShape } from '../catalogue/stone'
import type { Mm } from '../measure/units'

/**
 * The length of a strip of paper laid once round a stone's edge.
 *
 * Circle `pi D`; oval by Ramanujan's first approximation; the rounded triangle is taken as a curve of constant width, whose
 * girth is `pi w` (Barbier); a rectangle with rounded corners; a navette is two equal arcs; a drop is a circle and the two
 * tangents to its point. A measured girth is itself.
 */
export function girth(outline: StoneShape): Mm {
  switch (outline.shape) {
    case 'round':
      return Math.PI * outline.diameter
    case 'oval': {
      const a = outline.length / 2
      const b = outline.width / 2
      return Math.PI * (3 * (a + b) - Math.sqrt((3 * a + b) * (a + 3 * b)))
    }
    case 'triangle':
      return Math.PI * outline.width
    case 'square':
      return rectangle(outline.width, outline.width, outline.corner)
    case 'rectangle':
      return rectangle(outline.width, outline.length, outline.corner)
    case 'navette': {
      const { length, width } = outline
      const radius = (length ** 2 + width ** 2) / (4 * width)
      return 4 * radius * Math.asin(length / (2 * radius))
    }
    case 'drop': {
      const radius = outline.width / 2
      const reach = outline.length - radius
      const tangent = Math.sqrt(reach ** 2 - radius ** 2)
      return 2 * tangent + radius * (2 * Math.PI - 2 * Math.acos(radius / reach))
    }
    case 'girth':
      return outline.girth
  }
}

const rectangle = (width: Mm, length: Mm, corner: Mm) => 2 * (length + width) - 8 * corner + 2 * Math.PI * corner
