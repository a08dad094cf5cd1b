import { fileTypeFromBuffer } from 'file-type'
import { invalid, Problem } from '../http/problem'

export const LARGEST_UPLOAD = 15 * 1024 * 1024
const ACCEPTED: ReadonlySet<string> = new Set(['application/pdf', 'image/png', 'image/jpeg'])

/** Refuses what is too large, empty, or not by its content a PDF or a picture, whatever its name says. */
export async function checkUpload(bytes: Buffer, name: string): Promise<{ mime: string; name: string }> {
  if (bytes.length > LARGEST_UPLOAD)
    throw new Problem(413, 'too-large', 'This file is larger than 15 MB. Make it smaller or attach a part of it.')
  if (bytes.length === 0) throw invalid('This file is empty.')
  const found = await fileTypeFromBuffer(bytes)
  if (found === undefined || !ACCEPTED.has(found.mime)) {
    throw new Problem(
      415,
      'wrong-type',
      'Only PDF files and pictures (PNG, JPEG) can be attached; by its content this is neither.',
    )
  }
  return { mime: found.mime, name: safeName(name, found.ext) }
}

/**
 * A name without paths, control characters or reserved signs, at most 120 characters, with the ending of its content.
 */
function safeName(name: string, extension: string): string {
  const base = (name.split(/[/\\]/).pop() ?? '')
    .replace(/[\u0000-\u001f\u007f"<>|:*?\u202a-\u202e\u2066-\u2069]/g, '')
    .trim()
  const stem = base
    .replace(/\.[a-z0-9]{1,5}$/i, '')
    .slice(0, 110)
    .trim()
  return `${stem === '' ? 'attachment' : stem}.${extension === 'jpg' ? 'jpg' : extension}`
}
