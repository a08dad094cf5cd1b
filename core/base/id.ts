/** True for the id of anything that is kept: a UUID in lower case. */
export function isId(text: string): boolean {
  return /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(text)
}
