import { expect, test } from 'vitest'
import { bulkItems } from '../../scripts/bench/bench-items'
import { bulkLoad } from '../../scripts/bench/bulk-load'
import { readMine } from '../../server/requisition/read-mine'
import { TODAY } from '../setup/rekko'
import { openUseCases } from '../setup/use-cases'

// The bench writes its rows by plain SQL, which no compiler reads: a renamed column would stop it only when measuring.
test('the rows of the bench fit the tables as they are, and lists show them', async () => {
  const rekko = await openUseCases()
  try {
    await bulkLoad(rekko.url, 50, TODAY)
    await bulkItems(rekko.url, 50)
    const mine = await rekko.as('Owen Marsh', (ctx) => readMine(ctx, { view: 'all', words: 'Need 50', limit: 50 }))
    expect(mine.rows.map((r) => r.title)).toContain('Need 50')
  } finally {
    await rekko.stop()
  }
})
