import { prepareMachine } from './setup/install.mjs'

await prepareMachine(['postgresql', 'chromium', 'poppler-utils', 'qpdf'])
await import('./setup/run-tests.ts')
