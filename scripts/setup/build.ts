import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const SOURCES = ['app', 'core', 'shared', 'server', 'public', 'nuxt.config.ts', 'package-lock.json']

function filesBelow(path: string): string[] {
  return statSync(path).isDirectory()
    ? readdirSync(path)
        .sort()
        .flatMap((name) => filesBelow(join(path, name)))
    : [path]
}

/** Builds the application unless what was built last came from the same sources. */
export function buildIfChanged(root: string): void {
  const hash = createHash('sha256')
  for (const file of SOURCES.map((s) => join(root, s))
    .filter(existsSync)
    .flatMap(filesBelow))
    hash.update(file.slice(root.length)).update(readFileSync(file))
  const now = hash.digest('hex')
  const mark = join(root, '.output/.rekko-built')
  if (existsSync(mark) && readFileSync(mark, 'utf8') === now) return
  const built = spawnSync(process.execPath, [join(root, 'node_modules/nuxt/bin/nuxt.mjs'), 'build'], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
  })
  if (built.status !== 0)
    throw new Error(`The application could not be built:\n${(built.stdout + built.stderr).slice(-4000)}`)
  writeFileSync(mark, now)
}
