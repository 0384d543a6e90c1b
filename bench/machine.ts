import { readFileSync } from 'node:fs'

/** The processor this ran on, for the record. */
export function machine(): string {
  return /model name\s*:\s*(.+)/.exec(readFileSync('/proc/cpuinfo', 'utf8'))?.[1] ?? 'unknown processor'
}
