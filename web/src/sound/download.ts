/** Hands a file to the player. */
export function download(blob: Blob, name: string) {
  const link = document.createElement('a')
  link.download = name
  link.href = URL.createObjectURL(blob)
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}
