import { createHash } from 'node:crypto'

/** The same id for the same name in every build of the demo, in the shape of a version-4 UUID. */
export function idOf(kind: string, name: string): string {
  const h = createHash('sha256').update(`hallamere ${kind} ${name}`).digest('hex')
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-4${h.slice(13, 16)}-8${h.slice(17, 20)}-${h.slice(20, 32)}`
}

/** A small generator with a fixed seed: the same numbers in every build. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
