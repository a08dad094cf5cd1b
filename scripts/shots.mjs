import { prepareMachine } from './setup/install.mjs'

await prepareMachine(['postgresql', 'chromium'])
await import('./setup/run-shots.ts')
