import { textOf } from '@pasado/core/values/plain'
import { fieldWords } from '@pasado/core/documents/field-words'
import type { OutboxItem } from './rows'

/** What waits or was refused, in words; of a secret never its value. */
export function itemWords(item: OutboxItem): string {
  if (item.kind === 'photo') {
    if (item.fields.caption) return `Photo: ${item.fields.caption}`
    return item.fields.label === 'yes' ? 'Photo of a label' : 'Photo'
  }
  if (item.kind === 'secret') return `Secret: ${item.body.purpose.replaceAll('-', ' ')}`
  const { kind, body } = item.draft
  if (kind === 'note.written') return `You wrote: “${body.text}”`
  if ('set' in body)
    return `${capital(kind.slice(0, -4))}: ${Object.entries(body.set as Record<string, unknown>)
      .map(([field, value]) => `${fieldWords(field)} ${valueInWords(value)}`)
      .join(', ')}`
  const texts = Object.entries(body as Record<string, unknown>).flatMap(([name, value]) =>
    typeof value === 'string' && !/^[0-9a-f-]{36}$/.test(value) && name !== 'strokes' && name !== 'digest'
      ? [value.replaceAll('-', ' ')]
      : []
  )
  return [capital(kind.replace('.', ' ')), texts.join(', ')].filter(Boolean).join(': ')
}

const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1)

function valueInWords(value: unknown): string {
  if (value === null) return 'cleared'
  return typeof value === 'object' ? 'set' : textOf(value)
}
