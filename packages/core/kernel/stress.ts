/** Stress majorization: each pair of points is drawn together or driven apart, one after the other. */
import { at, terms, termWeights, wanted } from './columns'

/**
 * Once through all pairs.
 *
 * @param step how far they are moved, as a share of what their weight allows
 * @param near beyond so many millimetres of thread, two points are driven apart by `slack` times what they are drawn together by
 */
export function sweep(count: i32, step: f64, near: f64, slack: f64): void {
  for (let t = 0; t < count; t++) {
    const mm = wanted[t]
    const a = 3 * terms[2 * t]
    const b = 3 * terms[2 * t + 1]
    const dx = at[a] - at[b]
    const dy = at[a + 1] - at[b + 1]
    const dz = at[a + 2] - at[b + 2]
    const now = Math.sqrt(dx * dx + dy * dy + dz * dz) + 1e-9
    const share = now < mm && mm > near ? slack / 2 : 0.5
    const by = min(step * termWeights[t], 1) * share * (1 - mm / now)
    at[a] = at[a] - dx * by
    at[a + 1] = at[a + 1] - dy * by
    at[a + 2] = at[a + 2] - dz * by
    at[b] = at[b] + dx * by
    at[b + 1] = at[b + 1] + dy * by
    at[b + 2] = at[b + 2] + dz * by
  }
}
