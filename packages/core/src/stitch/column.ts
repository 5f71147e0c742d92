/** A growing column of numbers in a typed array: what beads and passes are kept in. */
type Store = Int32Array | Uint8Array | Float64Array

export class Column<T extends Store> {
  length = 0

  private constructor(private store: T) {}

  static bytes = () => new Column(new Uint8Array(64))
  static whole = () => new Column(new Int32Array(64))
  static real = () => new Column(new Float64Array(64))

  push(value: number): void {
    if (this.length === this.store.length) {
      const wider = new (this.store.constructor as new (length: number) => T)(this.length * 2)
      wider.set(this.store)
      this.store = wider
    }
    this.store[this.length++] = value
  }

  /** Forgets everything from `length` on. */
  cut(length: number): void {
    this.length = Math.min(this.length, length)
  }

  /** The first numbers of another column. */
  copy(other: Column<Store>, length: number): void {
    this.store = other.store.slice(0, Math.max(64, length)) as T
    this.length = length
  }

  get(index: number): number {
    return this.store[index] as number
  }

  set(index: number, value: number): void {
    this.store[index] = value
  }
}
