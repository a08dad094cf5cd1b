import { prepareMachine } from './setup/install.mjs'

await prepareMachine(['postgresql', 'chromium'])
await import('./bench/run-bench.ts')
