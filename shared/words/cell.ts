/**
 * A text that no spreadsheet takes for a formula when it opens it: what begins like one gets an
 * apostrophe in front (OWASP, CSV injection). Plain numbers stay as they are.
 */
export function safeCell(text: string): string {
  return /^[=+\-@\t\r]/.test(text) && !/^-?\d+(\.\d+)?$/.test(text) ? `'${text}` : text
}
