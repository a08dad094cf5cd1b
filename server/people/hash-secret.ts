import { createHash } from 'node:crypto'

/** What is kept of a long random secret that opens something, so that whoever reads the database opens nothing. */
export const hashSecret = (secret: string): string => createHash('sha256').update(secret).digest('hex')
