import type { Author } from '@pasado/core/record/attribution'

/** The outbox that the server's own entries are from. */
export const serverDevice = '00000000-0000-7000-8000-000000000000'
export const serverAuthor: Author = { id: 'server', name: 'Pasado', role: 'server' }
