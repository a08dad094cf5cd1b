import { join } from 'node:path'
import { drizzle } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import pg from 'pg'
import PgBoss from 'pg-boss'
import { TASKS } from '../queue/tasks'

/**
 * Brings a database forward, as its owner: the tables, the queue's own tables, the queues, and what the
 * application's role may do with them. Done again, it changes nothing.
 */
export async function migrateDatabase(ownerUrl: string, root: string): Promise<void> {
  const client = new pg.Client({ connectionString: ownerUrl })
  await client.connect()
  try {
    await client.query('set client_min_messages = warning')
    await migrate(drizzle(client), { migrationsFolder: join(root, 'server/db/migrations') })
    const boss = new PgBoss({ connectionString: ownerUrl, schema: 'pgboss', supervise: false })
    boss.on('error', () => undefined)
    await boss.start()
    for (const task of TASKS) await boss.createQueue(task)
    await boss.stop({ graceful: false, wait: true })
    await client.query('grant usage on schema pgboss to rekko_app')
    await client.query('grant select, insert, update, delete on all tables in schema pgboss to rekko_app')
    await client.query('grant execute on all functions in schema pgboss to rekko_app')
    await client.query('grant usage, select on all sequences in schema pgboss to rekko_app')
  } finally {
    await client.end()
  }
}
