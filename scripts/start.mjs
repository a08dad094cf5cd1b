// Production: starts the built server, configured by environment variables (docs/operations.md).
import { existsSync } from 'node:fs'
import { ROOT } from './setup/install.mjs'

const server = new URL('../.output/server/index.mjs', import.meta.url)
if (!existsSync(server)) {
  process.stderr.write('Rekko is not built yet: run “npm run build” first.\n')
  process.exit(1)
}
process.env.NODE_ENV ??= 'production'
process.env.REKKO_ROOT ??= ROOT
process.env.HOST ??= '127.0.0.1'
await import(server.href)
