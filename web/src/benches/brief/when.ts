/** When something was done, in short: today by its time alone. */
export function when(at: string): string {
  const date = new Date(at)
  const today = new Date().toDateString() === date.toDateString()
  const time = date.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })
  return today ? `today ${time}` : `${date.toLocaleDateString()} ${time}`
}
