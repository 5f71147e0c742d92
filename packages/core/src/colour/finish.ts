/** How a finish is drawn: how strong its light is, whether light comes through, whether its edge is dark as metal's is. */
export interface FinishLook {
  /** 0..1: of the light on it. */
  readonly shine: number
  /** 0..1: below 1 what lies beneath shows. */
  readonly cover: number
  readonly metal: boolean
}

/** @param finish in a maker's words: "opaque matte", "transparent lustre", "silver lined" */
export const finishLook = (finish: string): FinishLook => ({
  shine: /lustre|metallic|silver|glass/.test(finish) ? 0.55 : /matte/.test(finish) ? 0.08 : 0.28,
  cover: /transparent/.test(finish) ? 0.8 : 1,
  metal: /metallic|silver/.test(finish),
})
