import { prepareMachine } from './setup/install.mjs'

await prepareMachine(['postgresql'])
await import('./setup/run-dev.ts')
