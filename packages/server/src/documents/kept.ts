/** Documents just made, kept for who asks again. Only a saving of work: what is here can be made anew at any time. */
const mostBytes = 64 * 1024 * 1024

export class KeptDocuments {
  private readonly kept = new Map<string, Buffer>()
  private bytes = 0

  get(key: string): Buffer | undefined {
    const found = this.kept.get(key)
    if (!found) return undefined
    this.kept.delete(key)
    this.kept.set(key, found)
    return found
  }

  keep(key: string, document: Buffer): void {
    this.kept.set(key, document)
    this.bytes += document.length
    for (const [oldest, { length }] of this.kept) {
      if (this.bytes <= mostBytes) return
      this.kept.delete(oldest)
      this.bytes -= length
    }
  }
}
