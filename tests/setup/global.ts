import { randomBytes } from 'node:crypto'
import { rmSync } from 'node:fs'
import type { TestProject } from 'vitest/node'
import { loadBareHallamere } from '../../demo/load-demo'
import { approvalPolicy } from '../../server/db/schema/approval'
import { openDatabase } from '../../server/db/client'
import { migrateDatabase } from '../../server/db/migrate'
import { buildIfChanged } from '../../scripts/setup/build'
import { createDatabase, startCluster } from '../../scripts/setup/cluster'
import { chooseMoment } from '../../scripts/setup/moment'

const ROOT = process.cwd()
declare module 'vitest' {
  export interface ProvidedContext {
    cluster: { port: number; urls: Record<'postgres' | 'rekko_owner' | 'rekko_app', string>; template: string }
    /** How far the world's clock is ahead of the machine's, in milliseconds. */
    lead: number
  }
}

/**
 * One private cluster for all API tests, with two template databases that test files copy: the organisation alone, and
 * one that is empty but for its tables.
 */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  buildIfChanged(ROOT)
  const directory = `/var/tmp/rekko-test-${process.pid}-${randomBytes(4).toString('hex')}`
  const cluster = await startCluster(directory, { hasty: true })
  const template = 'hallamere'
  await createDatabase(cluster, 'empty')
  await migrateDatabase(cluster.url('rekko_owner', 'empty'), ROOT)
  await createDatabase(cluster, template, 'empty')
  const { db, pool } = openDatabase(cluster.url('rekko_app', template), 2)
  const moment = chooseMoment()
  await loadBareHallamere(db, moment)
  // Most tests look at one request by itself; those of the window of an own limit set it.
  await db.update(approvalPolicy).set({ ownLimitDays: null })
  await pool.end()
  project.provide('lead', moment.getTime() - Date.now())
  const url = (role: 'postgres' | 'rekko_owner' | 'rekko_app') => cluster.url(role, 'DATABASE')
  project.provide('cluster', {
    port: cluster.port,
    template,
    urls: { postgres: url('postgres'), rekko_owner: url('rekko_owner'), rekko_app: url('rekko_app') },
  })
  return async () => {
    await cluster.stop()
    rmSync(directory, { recursive: true, force: true })
  }
}
