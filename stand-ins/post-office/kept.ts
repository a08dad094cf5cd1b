import type { ParsedMail } from 'mailparser'

/**
 * The post office: takes every mail over SMTP, keeps it as it came, and shows it on a page. It stands in
 * for the world's mail servers; a real one takes its place by REKKO_SMTP_URL alone.
 */
export interface Kept {
  readonly number: number
  readonly receivedAt: string
  readonly mail: ParsedMail
}
