/** Colours between two, by their red, green and blue: good enough for shading; judgement of colours is done elsewhere. */
const lerp = (a: number, b: number, share: number): number => a + (b - a) * share

/** @param a,b `#rrggbb` */
export function mixed(a: string, b: string, share: number): string {
  const part = (colour: string, at: number) => Number.parseInt(colour.slice(at, at + 2), 16)
  const parts = [1, 3, 5].map((at) => Math.round(lerp(part(a, at), part(b, at), share)))
  return `#${parts.map((each) => each.toString(16).padStart(2, '0')).join('')}`
}
