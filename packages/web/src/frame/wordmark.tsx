export const Wordmark = ({ size = 26 }: { size?: number }) => (
  <span style={{ display: 'inline-flex', alignItems: 'center', gap: 10, font: `600 ${size}px/1 var(--title)` }}>
    <img src="/favicon.svg" alt="" width={size + 4} height={size + 4} />
    Tessellum
  </span>
)
