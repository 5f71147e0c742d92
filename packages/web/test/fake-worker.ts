/** Workers on the test's own thread: they do what the test says, and tell which there were. */
import { expose } from 'comlink'

export interface FakeWorker {
  readonly name: string
  readonly ended: boolean
  /** As where its code cannot be fetched. */
  breaks(): void
}

type Listener = (event: { readonly data: unknown; readonly ports: readonly unknown[] }) => void

/** One end of a channel whose messages stay on this thread: nothing is left open when a test ends. */
class Port {
  other: Port | undefined
  private readonly listeners = new Set<Listener>()
  onmessage: Listener | null = null
  postMessage(data: unknown, ports: readonly unknown[] = []) {
    const { other } = this
    queueMicrotask(() => {
      for (const listener of other?.listeners ?? []) listener({ data, ports })
      other?.onmessage?.({ data, ports })
    })
  }
  addEventListener(type: string, listener: Listener) {
    if (type === 'message') this.listeners.add(listener)
  }
  removeEventListener(_: string, listener: Listener) {
    this.listeners.delete(listener)
  }
  start() {}
  close() {
    this.other = undefined
  }
}

class Channel {
  readonly port1 = new Port()
  readonly port2 = new Port()
  constructor() {
    this.port1.other = this.port2
    this.port2.other = this.port1
  }
}

/** @param tasks by the worker's name: what it does; asked for anew for each worker that is begun */
export function fakeWorkers(tasks: Readonly<Record<string, () => object>>): FakeWorker[] {
  const begun: (Omit<FakeWorker, 'ended'> & { ended: boolean })[] = []
  class Worker extends Port {
    private readonly own: (typeof begun)[number]
    private broken: (() => void) | undefined
    constructor(_: string, { name }: { name: string }) {
      super()
      this.own = { name, ended: false, breaks: () => this.broken?.() }
      begun.push(this.own)
      const inside = new Port()
      this.other = inside
      inside.other = this
      expose(tasks[name]?.(), inside as unknown as MessagePort)
    }
    override addEventListener(type: string, listener: Listener) {
      super.addEventListener(type, listener)
      if (type === 'error') this.broken = () => listener({ data: undefined, ports: [] })
    }
    terminate() {
      this.own.ended = true
      this.close()
    }
  }
  Object.assign(globalThis, { Worker, MessageChannel: Channel })
  return begun
}

/** Never comes to an end. */
export const hangs = (): Promise<never> => new Promise(() => {})

/** Lets every message that is under way come to its end, whatever the clock says. */
export const delivered = async (): Promise<void> => {
  for (let i = 0; i < 60; i++) await Promise.resolve()
}
