// Verifies the chain of events, of the database of DATABASE_URL or of an export in JSON Lines, and says what is wrong.
//   npm run audit:verify [-- FILE] [-- --head NUMBER:HASH] [-- --export FILE]
import './setup/install.mjs'
import { register } from 'tsx/esm/api'

register()
const { verifyFromCommand } = await import('./setup/verify-audit.ts')
process.exitCode = await verifyFromCommand(process.argv.slice(2))
