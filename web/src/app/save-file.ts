/** Hands a file to the person. */
export function saveFile(name: string, content: string | Blob, type = ''): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(content instanceof Blob ? content : new Blob([content], { type }))
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}

/** Hands a value to the person as a JSON file. */
export function saveJson(name: string, value: unknown): void {
  saveFile(name, `${JSON.stringify(value, null, 2)}\n`, 'application/json')
}
