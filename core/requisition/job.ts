/** A piece of the organisation's work, as it is named on a document or a line. */
export interface Job {
  readonly id: string
  readonly number: string
  readonly name: string
}
