import { SMTPServer } from 'smtp-server'

/** A letter as it arrived, for one address here. */
export interface Arrived {
  /** The part of the address before the @. */
  readonly to: string
  /** Whom a notice that it cannot be delivered would go to; "" for such a notice itself. */
  readonly envelopeFrom: string
  readonly raw: Buffer
}

/** What takes letters in. */
export interface MailTaker {
  /** The domain whose letters are taken. */
  readonly domain: string
  /** Whether there is such an address. */
  readonly knows: (to: string) => Promise<boolean>
  /** Takes a letter; a sentence says why it is not taken, and whoever delivers it is told. */
  readonly take: (arrived: Arrived) => Promise<string | null>
  /** What went wrong in here; the letter comes again. */
  readonly onError: (error: unknown) => void
}

/** The largest letter that is taken, in bytes. */
const MOST_LETTER = 20 * 1024 * 1024
const MOST_CLIENTS = 20
const IDLE_MS = 60_000

class SmtpRefusal extends Error {
  constructor(
    readonly responseCode: number,
    message: string,
  ) {
    super(message)
  }
}
const noSuch = () => new SmtpRefusal(550, '5.1.1 There is no such address here.')
const later = () => new SmtpRefusal(451, '4.3.0 It cannot be taken at the moment; try again later.')

/**
 * Listens on loopback for the post office (or any mail server in front) to deliver letters by SMTP, RFC 5321. Nothing
 * is said to be taken before it is; a letter has one recipient, others of it are asked for by themselves.
 */
export async function listenForMail(port: number, taker: MailTaker): Promise<{ stop: () => Promise<void> }> {
  const refuse = (error: unknown): Error => {
    if (error instanceof SmtpRefusal) return error
    taker.onError(error)
    return later()
  }
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    banner: 'Rekko',
    size: MOST_LETTER,
    maxClients: MOST_CLIENTS,
    socketTimeout: IDLE_MS,
    closeTimeout: 2000,
    logger: false,
    onRcptTo({ address }, session, done) {
      const [to, domain] = split(address)
      const check = async () => {
        if (domain !== taker.domain.toLowerCase() || !(await taker.knows(to))) throw noSuch()
        if (session.envelope.rcptTo.length > 0) throw new SmtpRefusal(452, '4.5.3 One recipient at a time.')
      }
      check().then(
        () => {
          done()
        },
        (error: unknown) => {
          done(refuse(error))
        },
      )
    },
    onData(stream, session, done) {
      const chunks: Buffer[] = []
      let size = 0
      stream.on('data', (chunk: Buffer) => {
        size += chunk.length
        if (size <= MOST_LETTER) chunks.push(chunk)
      })
      stream.on('end', () => {
        const { mailFrom, rcptTo } = session.envelope
        const take = async () => {
          if (stream.sizeExceeded || size > MOST_LETTER) throw new SmtpRefusal(552, '5.3.4 The letter is too large.')
          const why = await taker.take({
            to: split(rcptTo[0]?.address ?? '')[0],
            envelopeFrom: mailFrom === false ? '' : mailFrom.address.toLowerCase(),
            raw: Buffer.concat(chunks),
          })
          if (why !== null) throw new SmtpRefusal(550, `5.7.1 ${why}`)
        }
        take().then(
          () => {
            done()
          },
          (error: unknown) => {
            done(refuse(error))
          },
        )
      })
    },
  })
  // A client that goes away in the middle is its own affair; the letter comes again.
  smtp.on('error', taker.onError)
  await new Promise<void>((resolve, reject) => {
    smtp.server.once('error', reject)
    smtp.listen(port, '127.0.0.1', () => {
      smtp.server.off('error', reject)
      resolve()
    })
  })
  return {
    stop: () =>
      new Promise((resolve) => {
        smtp.close(resolve)
      }),
  }
}

const split = (address: string): [string, string] => {
  const at = address.toLowerCase().lastIndexOf('@')
  return at === -1
    ? [address.toLowerCase(), '']
    : [address.slice(0, at).toLowerCase(), address.slice(at + 1).toLowerCase()]
}
