/**
 * What the first `parts` of `of` parts come to, where a whole number is shared out as evenly as whole numbers allow: 56 among 9 is 6 seven times
 * and 7 twice, the sevens well apart.
 */
export const sharedOut = (whole: number, of: number, parts: number): number => Math.floor((whole * parts) / of + 1e-9)
