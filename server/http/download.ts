import { setHeader, type H3Event } from 'h3'

/** Bytes to be kept, never shown in place: as an attachment with a safe name, and no guessing of types. */
export function asDownload(
  event: H3Event,
  file: { readonly bytes: Buffer; readonly name: string; readonly mime: string },
): Buffer {
  const ascii = file.name.replace(/[^\x20-\x7e]|["\\%]/g, '_')
  const encoded = encodeURIComponent(file.name).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16)}`)
  setHeader(event, 'content-type', file.mime)
  setHeader(event, 'content-disposition', `attachment; filename="${ascii}"; filename*=UTF-8''${encoded}`)
  setHeader(event, 'x-content-type-options', 'nosniff')
  setHeader(event, 'cache-control', 'private, no-store')
  setHeader(event, 'content-security-policy', "sandbox; default-src 'none'")
  return file.bytes
}

/**
 * A PDF or picture to be looked at in a frame of our own pages; its type was decided by its content, and no guessing.
 */
export function asPreview(
  event: H3Event,
  file: { readonly bytes: Buffer; readonly name: string; readonly mime: string },
): Buffer {
  const bytes = asDownload(event, file)
  if (file.mime !== 'application/pdf') return bytes
  setHeader(event, 'content-disposition', 'inline')
  setHeader(event, 'content-security-policy', "frame-ancestors 'self'")
  setHeader(event, 'x-frame-options', 'SAMEORIGIN')
  return bytes
}
