/** Hands a value to the person as a JSON file. */
export function saveJson(name: string, value: unknown): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([`${JSON.stringify(value, null, 2)}\n`], { type: 'application/json' }))
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}
