import { sha256Hex } from '@pasado/core/values/canonical'

/** A UUID that is the same for the same name at every load. */
export function demoId(...name: (string | number)[]): string {
  const hex = sha256Hex(`tern and tideway ${name.join(' ')}`)
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}

/** A visit's id: a UUID of version 7 with a fixed time, the same at every load. */
export function demoVisitId(name: string): string {
  const hex = sha256Hex(`tern and tideway visit ${name}`)
  return `019a0000-${hex.slice(0, 4)}-7${hex.slice(5, 8)}-8${hex.slice(9, 12)}-${hex.slice(12, 24)}`
}
