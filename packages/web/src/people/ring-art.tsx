/** Rows of beads round a centre, for the sign-in page. */
const tints = ['#d8b45c', '#f0e6cf', '#a8c3ad', '#c9745a', '#e6d5a8']

export function RingArt() {
  const rings = [
    { radius: 46, count: 22, tint: 1 },
    { radius: 58, count: 28, tint: 0 },
    { radius: 71, count: 34, tint: 2 },
    { radius: 84, count: 40, tint: 1 },
    { radius: 97, count: 46, tint: 3 },
  ]
  return (
    <svg viewBox="-115 -115 230 230" aria-hidden="true">
      <circle r="37" fill="#1d4437" stroke="#7fa08c" strokeWidth="0.6" />
      {rings.flatMap(({ radius, count, tint }, ring) =>
        Array.from({ length: count }, (_, i) => {
          const angle = (360 / count) * (i + (ring % 2) / 2)
          const colour = i % 6 === ring ? tints[4] : tints[tint]
          return (
            <g key={`${radius} ${i}`} transform={`rotate(${angle}) translate(0 ${-radius})`}>
              <rect
                x="-5.4"
                y="-5.4"
                width="10.8"
                height="10.8"
                rx="3"
                fill={colour}
                stroke="#1d3a30"
                strokeWidth="0.7"
              />
            </g>
          )
        }),
      )}
    </svg>
  )
}
