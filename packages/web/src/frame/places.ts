/** Each place is one keystroke away: Alt and its number. */
export const places = [
  { path: '/bench', label: 'Bench', key: '1' },
  { path: '/patterns', label: 'Patterns', key: '2' },
  { path: '/stock', label: 'Stock', key: '3' },
  { path: '/kits', label: 'Kits', key: '4' },
  { path: '/diary', label: 'Diary', key: '5' },
  { path: '/desk', label: 'Sizing desk', key: '6' },
] as const
