import net from 'node:net'

/** A wire to the database that can be cut and mended. */
export async function wire(to: number) {
  const open = new Set<net.Socket>()
  const server = net.createServer((near) => {
    const far = net.connect(to, '127.0.0.1')
    for (const socket of [near, far]) {
      open.add(socket)
      socket.on('error', () => undefined)
      socket.on('close', () => open.delete(socket))
    }
    near.pipe(far)
    far.pipe(near)
    near.on('close', () => far.destroy())
    far.on('close', () => near.destroy())
  })
  const listen = (port: number) => new Promise<void>((done) => server.listen(port, '127.0.0.1', () => done()))
  await listen(0)
  const { port } = server.address() as net.AddressInfo
  return {
    port,
    cut: () =>
      new Promise<void>((done) => {
        server.close(() => done())
        for (const socket of open) socket.destroy()
      }),
    mend: () => listen(port),
  }
}
