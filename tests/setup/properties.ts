import fc from 'fast-check'

// `npm run deep` tries every property on many more cases than `npm test` has time for.
if (process.env.REKKO_DEEP === '1') fc.configureGlobal({ numRuns: 5000 })
