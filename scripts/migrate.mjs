// Brings the database of DATABASE_OWNER_URL forward, as its owner.
import { ROOT } from './setup/install.mjs'
import { register } from 'tsx/esm/api'

register()
const url = process.env.DATABASE_OWNER_URL
if (!url) {
  process.stderr.write('Set DATABASE_OWNER_URL to the database, as the role that owns it.\n')
  process.exit(1)
}
const { migrateDatabase } = await import('../server/db/migrate.ts')
await migrateDatabase(url, ROOT)
process.stdout.write('The database is up to date.\n')
