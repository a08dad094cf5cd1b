import { Unzip, UnzipInflate } from 'fflate'

/** Bytes that are handed to the unpacking at a time: a small file may hold a thousand times as much. */
const STEP = 16 * 1024

/**
 * Unpacks a zip file piece by piece and keeps nothing, whatever its directory says of it: `look` hears of each piece of
 * each entry, under its name. Stops, and says false, as soon as more than `most` bytes have come.
 */
export function lookIntoZip(bytes: Buffer, most: number, look: (entry: string, piece: Uint8Array) => void): boolean {
  let unpacked = 0
  const zip = new Unzip((entry) => {
    entry.ondata = (error, piece) => {
      if (error !== null) throw error
      unpacked += piece.length
      if (unpacked <= most) look(entry.name, piece)
    }
    entry.start()
  })
  zip.register(UnzipInflate)
  for (let at = 0; at < bytes.length && unpacked <= most; at += STEP)
    zip.push(bytes.subarray(at, at + STEP), at + STEP >= bytes.length)
  return unpacked <= most
}
