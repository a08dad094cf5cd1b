export const ROOT: string
export function step<T>(name: string, work: () => T | Promise<T>): Promise<T>
export function prepareMachine(debian: readonly string[]): Promise<void>
