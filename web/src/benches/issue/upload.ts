/** Sending a file to the server as a form. */
export function fileBody(file: File) {
  const body = new FormData()
  body.append('file', file)
  return { body: body as never, bodySerializer: (b: unknown) => b as never }
}
