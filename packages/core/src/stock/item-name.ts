interface Named {
  readonly kind: string
  readonly size: string
  readonly colourName: string
  readonly colourCode: string
  readonly maker: string
}

/** "cylinder 11/0 Lantern green (BC-101), Brackwater Glass": how an item is called on paper. */
export const itemName = (item: Named): string =>
  `${item.kind} ${item.size} ${item.colourName}${item.colourCode ? ` (${item.colourCode})` : ''}, ${item.maker}`
