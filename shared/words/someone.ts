import { listWords } from './format'

/** Somebody as a sentence names them: whoever reads it is spoken to, which is a fact and not a name. */
export interface Someone {
  readonly name: string
  readonly you: boolean
}

/** "you and Tomas Brandt" */
export const sayPeople = (people: readonly Someone[]): string => listWords(people.map((p) => (p.you ? 'you' : p.name)))
