/** Each place is one keystroke away: Alt and its number. */
export const places = [
  { path: '/patterns', label: 'Patterns', key: '1' },
  { path: '/stock', label: 'Stock', key: '2' },
  { path: '/kits', label: 'Kits', key: '3' },
  { path: '/desk', label: 'Sizing desk', key: '4' },
] as const
