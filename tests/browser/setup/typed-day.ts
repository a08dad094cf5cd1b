/** A day so many days from now, as it is typed. */
export function typedDay(days: number): string {
  const day = new Date(Date.now() + days * 86_400_000)
  return `${day.getDate()}.${day.getMonth() + 1}.${day.getFullYear()}`
}
