import net from 'node:net'

/** A wire to the database that counts what is asked of it: statements that are executed, whichever way they are sent. */
export async function countingWire(to: number) {
  let statements = 0
  const server = net.createServer((near) => {
    const far = net.connect(to, '127.0.0.1')
    for (const socket of [near, far]) socket.on('error', () => undefined)
    let unread = Buffer.alloc(0)
    let begun = false
    near.on('data', (bytes: Buffer) => {
      unread = Buffer.concat([unread, bytes])
      for (;;) {
        // The first message has no letter before its length.
        const letter = begun ? 1 : 0
        if (unread.length < letter + 4) return
        const length = letter + unread.readInt32BE(letter)
        if (unread.length < length) return
        // 'Q' is a statement by itself; 'E' executes one that was parsed and bound before.
        if (begun && (unread[0] === 0x51 || unread[0] === 0x45)) statements++
        begun = true
        unread = unread.subarray(length)
      }
    })
    near.pipe(far)
    far.pipe(near)
    near.on('close', () => far.destroy())
    far.on('close', () => near.destroy())
  })
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', () => done()))
  return {
    port: (server.address() as net.AddressInfo).port,
    /** How many since it was asked last. */
    read() {
      const read = statements
      statements = 0
      return read
    },
    close: () => void server.close(),
  }
}
