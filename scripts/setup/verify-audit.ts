import { closeSync, createReadStream, existsSync, openSync, writeSync } from 'node:fs'
import { createInterface } from 'node:readline'
import { parseArgs } from 'node:util'
import type { ChainFound, ChainHead } from '#core/audit/integrity'
import { sayFault } from '#shared/words/look-back'
import { ChainCheck, readLine, writeLine } from '../../server/audit/chain'
import { checkChain } from '../../server/audit/lay-chain'
import { openDatabase } from '../../server/db/client'
import { inTransaction } from '../../server/db/transaction'

const say = (text: string) => process.stdout.write(`${text}\n`)

/** Reads “412:ab01…”: the number and hash of a head that was kept outside. */
function readHead(text: string | undefined): ChainHead | null {
  if (text === undefined) return null
  const [, number, hash] = /^(\d+):([0-9a-f]{64})$/.exec(text) ?? []
  if (number === undefined || hash === undefined)
    throw new Error('A head is a number and a hash of 64 figures, with a colon in between.')
  return { number: Number(number), hash }
}

/** Follows the chain of an export, line by line. */
export async function verifyFile(path: string, kept: ChainHead | null): Promise<ChainFound> {
  const check = new ChainCheck(kept)
  const unlinked: number[] = []
  let at = 0
  for await (const line of createInterface({ input: createReadStream(path, 'utf8'), crlfDelay: Infinity })) {
    at += 1
    if (line === '') continue
    const read = readLine(line)
    if (read === null) throw new Error(`Line ${at} is no event of an export.`)
    if (read.link === null) unlinked.push(read.event.seq)
    else check.take({ link: read.link, event: read.event })
  }
  return check.end(unlinked)
}

/** Follows the chain of a database, and writes it to a file meanwhile where one is named. */
export async function verifyDatabase(url: string, kept: ChainHead | null, to: string | null): Promise<ChainFound> {
  const { db, pool } = openDatabase(url, 1)
  const file = to === null ? null : openSync(to, 'wx')
  try {
    return await inTransaction(db, (tx) =>
      checkChain(tx, kept, ({ link, event }, previous) => {
        if (file !== null && event !== null) writeSync(file, writeLine(event, link, previous))
      }),
    )
  } finally {
    if (file !== null) closeSync(file)
    await pool.end()
  }
}

/** What the command does, and what it ends with: 0 where the chain is whole, 1 where not, 2 where it cannot say. */
export async function verifyFromCommand(args: string[]): Promise<number> {
  try {
    const { values, positionals } = parseArgs({
      args,
      allowPositionals: true,
      options: { head: { type: 'string' }, export: { type: 'string' } },
    })
    const kept = readHead(values.head)
    const [path] = positionals
    const url = process.env.DATABASE_URL
    if (path === undefined && (url === undefined || url === ''))
      throw new Error('Name a file to verify, or set DATABASE_URL to the database.')
    if (path !== undefined && !existsSync(path)) throw new Error(`There is no file ${path}.`)
    const found =
      path === undefined ? await verifyDatabase(url ?? '', kept, values.export ?? null) : await verifyFile(path, kept)
    if (found.fault !== null) {
      say(sayFault(found.fault))
      return 1
    }
    say(`The chain is whole: ${found.links} events.`)
    if (found.head !== null) say(`It ends at ${found.head.number}:${found.head.hash}`)
    return 0
  } catch (error) {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
    return 2
  }
}
