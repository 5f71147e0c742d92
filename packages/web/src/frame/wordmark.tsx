/** Four beads of a round, two standing and two lying. */
export const Mark = ({ size, plain = false }: { size: number; plain?: boolean }) => (
  <svg width={size} height={size} viewBox="0 0 32 32" aria-hidden="true">
    <g stroke="#22302b" strokeWidth="1">
      <g fill={plain ? '#2a5a49' : '#f4efe4'}>
        <rect x="12" y="2" width="8" height="9.5" rx="2.6" />
        <rect x="12" y="20.5" width="8" height="9.5" rx="2.6" />
      </g>
      <g fill="#d0a648">
        <rect x="2" y="11.25" width="8" height="9.5" rx="2.6" />
        <rect x="22" y="11.25" width="8" height="9.5" rx="2.6" />
      </g>
    </g>
  </svg>
)

export const Wordmark = ({ size = 26 }: { size?: number }) => (
  <span style={{ display: 'inline-flex', alignItems: 'center', gap: 10, font: `600 ${size}px/1 var(--title)` }}>
    <Mark size={size + 4} plain />
    Tessellum
  </span>
)
