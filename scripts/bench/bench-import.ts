import type { LaidView } from '#shared/contract/lists'
import type { Cluster } from '../setup/cluster'
import { withClient } from './bulk-load'

const seconds = (from: number) => (performance.now() - from) / 1000

/**
 * Brings a price list of so many items in, step by step as the page does, and copies the same rows with a bare COPY
 * into tables with the same indexes, in the same run.
 */
export async function benchImport(
  cluster: Cluster,
  url: string,
  buyer: string,
  count: number,
): Promise<[what: string, figure: string, aim: string][]> {
  const head = 'Item;Name;Category;Supplier;Their number;Price;Currency;Tax'
  const rows = Array.from(
    { length: count },
    (_, i) =>
      `IMP-${i};Imported thing ${i} of ${(i * 7919) % 1000};Pump parts;S-1001;IMP-${i};${(i % 900) / 100 + 1};EUR;S`,
  )
  const call = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const reply = await fetch(`${url}${path}`, {
      method,
      headers: {
        cookie: buyer,
        origin: url,
        'content-type': typeof body === 'string' ? 'application/octet-stream' : 'application/json',
      },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    })
    if (!reply.ok) throw new Error(`${method} ${path}: ${reply.status} ${await reply.text()}`)
    return (reply.status === 204 ? null : await reply.json()) as T
  }
  const begun = performance.now()
  const { id } = await call<{ id: string }>(
    'POST',
    '/api/lists/items/files?name=import.csv',
    [head, ...rows].join('\n'),
  )
  const at = `/api/lists/items/files/${id}`
  const until = async (state: LaidView['state']): Promise<LaidView> => {
    for (;;) {
      const file = await call<LaidView>('GET', at)
      if (file.state === state) return file
      if (file.trouble !== '') throw new Error(file.trouble)
      await new Promise((r) => {
        setTimeout(r, 100)
      })
    }
  }
  const { columns } = await until('read')
  const read = seconds(begun)
  const from = performance.now()
  await call('POST', `${at}/looks`, { columns })
  const { counts } = await until('looked at')
  if (counts.adds !== count) throw new Error(`${counts.adds} would be new instead of ${count}`)
  const looked = seconds(from)
  const taking = performance.now()
  await call('POST', `${at}/takings`, {})
  await until('taken')
  const taken = seconds(taking)

  let copied = 0
  await withClient(cluster.url('postgres', 'rekko'), async (client) => {
    const { rows: found } = await client.query<{ at: string }>("select current_setting('data_directory') as at")
    const file = (name: string) => `'${found[0]?.at ?? ''}/${name}'`
    const own = "item where number like 'IMP-%'"
    await client.query(`copy (select * from ${own}) to ${file('item')}`)
    await client.query(`copy (select * from item_price where item_id in (select id from ${own})) to ${file('price')}`)
    await client.query('create table copied_item (like item including all)')
    await client.query('create table copied_price (like item_price including all)')
    const start = performance.now()
    await client.query(`begin; copy copied_item from ${file('item')}; copy copied_price from ${file('price')}; commit`)
    copied = seconds(start)
  })
  const times = (s: number) => `${(s / copied).toFixed(1)} times (${s.toFixed(1)} s and ${copied.toFixed(1)} s)`
  const items = `${count.toLocaleString('en')} items of a CSV`
  return [
    [`${items}: read and laid aside, by a COPY of the same rows`, times(read), ''],
    [`${items}: what each row would do`, times(looked), ''],
    [`${items}: taken, in one transaction`, times(taken), ''],
  ]
}
