import { connect, createServer, type Socket } from 'node:net'

/** A way to a server on this machine that can be made to hang: connections stay, and nothing comes through. */
export interface StallingWay {
  readonly port: number
  hang: () => void
  goOn: () => void
  close: () => Promise<void>
}

export async function openStallingWay(to: number, port: number): Promise<StallingWay> {
  const sockets = new Set<Socket>()
  let hangs = false
  const keep = (socket: Socket) => {
    sockets.add(socket)
    socket.on('error', () => undefined)
    socket.on('close', () => sockets.delete(socket))
    if (hangs) socket.pause()
  }
  const way = createServer((near) => {
    const far = connect(to, '127.0.0.1')
    for (const [from, into] of [
      [near, far],
      [far, near],
    ] as const) {
      keep(from)
      from.on('data', (chunk) => into.write(chunk))
      from.on('close', () => into.destroy())
      if (hangs) from.pause()
    }
  })
  await new Promise<void>((r) => {
    way.listen(port, '127.0.0.1', r)
  })
  const each = (does: (socket: Socket) => void) => {
    for (const socket of sockets) does(socket)
  }
  return {
    port,
    hang: () => {
      hangs = true
      each((s) => s.pause())
    },
    goOn: () => {
      hangs = false
      each((s) => s.resume())
    },
    close: () =>
      new Promise((resolve) => {
        each((s) => s.destroy())
        way.close(() => {
          resolve()
        })
      }),
  }
}
