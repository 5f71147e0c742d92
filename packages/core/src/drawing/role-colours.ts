/** Colours that stand for the roles of a pattern without a colourway: apart in lightness as well as in hue. */
const spread = ['#3c6e5d', '#d0a648', '#f2ead6', '#8d4a37', '#5d7d95', '#b9c3a2', '#55414f', '#d8d2c4']

export const roleColours = (roles: readonly string[]): Record<string, string> =>
  Object.fromEntries(roles.map((role, i) => [role, spread[i % spread.length] as string]))
