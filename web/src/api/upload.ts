/** Sending a file to the server as a form, with what is said beside it. */
export function fileBody(file: File, said: Record<string, string> = {}) {
  const body = new FormData()
  body.append('file', file)
  for (const [name, value] of Object.entries(said)) body.append(name, value)
  return { body: body as never, bodySerializer: (b: unknown) => b as never }
}
