/** Forms that the server has computed before: asked for while they are begun here, and taken where they are there first. */
import { formOfBytes, type KeptForm, type KeptForms } from '@tessellum/core/form/kept-forms'

/** Steps of a piece are many and small, and are computed here. */
const whole = /^[0-9a-f]+$/

export class FormsOfServer implements KeptForms {
  private readonly found = new Map<string, KeptForm>()
  private readonly asked = new Set<string>()

  /** @param addressOf where a form is, by its digest */
  constructor(private readonly addressOf: (digest: string) => string) {}

  get(digest: string): KeptForm | undefined {
    if (!this.asked.has(digest) && whole.test(digest)) {
      this.asked.add(digest)
      void this.ask(digest)
    }
    const form = this.found.get(digest)
    this.found.delete(digest)
    return form
  }

  /** What is computed here stays here. */
  keep(): void {}

  private async ask(digest: string): Promise<void> {
    // Where it cannot be reached, the form is computed here.
    const response = await fetch(this.addressOf(digest)).catch(() => undefined)
    const bytes = response?.status === 200 ? await response.arrayBuffer().catch(() => undefined) : undefined
    const form = bytes && formOfBytes(new Uint8Array(bytes))
    if (form) this.found.set(digest, form)
  }
}
