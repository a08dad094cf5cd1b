import { getHeader, type H3Event } from 'h3'
import type { z } from 'zod'
import { invalid, Problem } from './problem'

const LARGEST_JSON = 2 * 1024 * 1024

/** Reads a JSON body: 413 when too large, 415 for another type, 400 when broken. */
export async function readJson(event: H3Event): Promise<unknown> {
  const large = () => new Problem(413, 'too-large', 'This is more than Rekko takes at once (2 MB).')
  const raw = (await readCounted(event, LARGEST_JSON, large)).toString('utf8')
  if (raw === '') return {}
  const type = getHeader(event, 'content-type') ?? ''
  if (!type.includes('json')) throw new Problem(415, 'wrong-type', 'Send JSON, with the content type application/json.')
  try {
    return JSON.parse(raw) as unknown
  } catch (cause) {
    throw new Problem(400, 'broken-json', 'This is not JSON: it breaks off or has a sign in the wrong place.', [], {
      cause,
    })
  }
}

/** Reads an uploaded file's bytes; 413 when there are too many. */
export function readBytes(event: H3Event, most: number): Promise<Buffer> {
  const large = () => new Problem(413, 'too-large', `A file may have at most ${Math.round(most / 1024 / 1024)} MB.`)
  return readCounted(event, most, large)
}

/** How much of a body that was refused is still let in, unread, and for how long, before its connection is ended. */
const LET_IN = { bytes: 32 * 1024 * 1024, ms: 10_000 } as const

/**
 * Reads a body and counts it while it arrives: what says or turns out to be too large is refused at once and kept no
 * more. Its rest runs into nothing for a while, for whoever still sends hears the answer only when they are through.
 */
async function readCounted(event: H3Event, most: number, large: () => Problem): Promise<Buffer> {
  const { req } = event.node
  const tooLarge = () => {
    let left: number = LET_IN.bytes
    const end = () => req.destroy()
    const late = setTimeout(end, LET_IN.ms).unref()
    req.on('data', (part: Buffer) => {
      left -= part.length
      if (left < 0) end()
    })
    req.once('close', () => {
      clearTimeout(late)
    })
    return large()
  }
  if (Number(getHeader(event, 'content-length') ?? '0') > most) throw tooLarge()
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = []
    let size = 0
    const take = (part: Buffer) => {
      size += part.length
      if (size <= most) parts.push(part)
      else {
        req.off('data', take)
        parts.length = 0
        reject(tooLarge())
      }
    }
    req.on('data', take)
    req.once('end', () => {
      resolve(Buffer.concat(parts))
    })
    req.once('error', reject)
    req.once('close', () => {
      reject(new Problem(400, 'broken-off', 'The request broke off before its end.'))
    })
  })
}

/** Checks a part of a request by its schema; 422 (404 for an address) with the fields concerned. */
export function parsePart<S extends z.ZodType>(
  schema: S,
  input: unknown,
  part: 'address' | 'query' | 'body',
): z.output<S> {
  const result = schema.safeParse(input)
  if (result.success) return result.data
  if (part === 'address') throw new Problem(404, 'not-found', 'There is nothing at this address.')
  const fields = result.error.issues
    .slice(0, 20)
    .map((issue) => ({ field: issue.path.join('.'), message: issue.message }))
  const [first] = fields
  throw invalid(
    first === undefined
      ? 'This cannot be read.'
      : `${first.field === '' ? 'The request' : first.field}: ${first.message}.`,
    fields,
  )
}

/** The version in If-Match: 428 when it is absent, 400 when it cannot be one. */
export function readVersion(event: H3Event): number {
  const header = getHeader(event, 'if-match')
  if (header === undefined) throw new Problem(428, 'version-needed', 'Say in If-Match which version you saw.')
  const match = /^"?(\d{1,9})"?$/.exec(header.trim())
  if (match === null) throw new Problem(400, 'bad-version', 'If-Match holds no version.')
  return Number(match[1])
}
