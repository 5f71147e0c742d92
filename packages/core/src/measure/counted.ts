/** A number of things in words: "1 kit", "1,200 kits", "2 passes". */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count.toLocaleString('en-GB')} ${count === 1 ? one : many}`
