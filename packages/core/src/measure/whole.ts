/** Arithmetic on whole numbers that counts of beads need. */

export const gcd = (a: number, b: number): number => (b === 0 ? Math.abs(a) : gcd(b, a % b))

export const lcm = (a: number, b: number): number => (a === 0 || b === 0 ? 0 : Math.abs(a * b) / gcd(a, b))

/** Numbers up to and including `n` that divide it, small to large. */
export function divisors(n: number): number[] {
  const found: number[] = []
  for (let i = 1; i * i <= n; i++) {
    if (n % i !== 0) continue
    found.push(i)
    if (i !== n / i) found.push(n / i)
  }
  return found.sort((a, b) => a - b)
}
