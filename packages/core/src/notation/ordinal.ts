/** `1st`, `2nd`, `3rd`, `4th`, as `into every 4th bead` has them. */
export const ordinal = (n: number): string => {
  const last = n % 100
  return `${n}${last >= 11 && last <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th')}`
}
