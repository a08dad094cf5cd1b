import { prepareMachine } from './setup/install.mjs'

await prepareMachine(['postgresql', 'poppler-utils', 'qpdf'])
await import('./setup/run-faults.ts')
