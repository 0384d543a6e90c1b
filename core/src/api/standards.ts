import { z } from 'zod'
import { standard } from '../policy/standard'
import { contract, everyRole, moment } from './contract'

/** What a draft of the standard would have said differently of one visit. */
export const standardEffect = z.object({
  rule: z.string(),
  name: z.string(),
  subject: z.string().nullable(),
  visit: z.uuid(),
  street: z.string(),
  was: z.string(),
  is: z.string()
})
export type StandardEffect = z.output<typeof standardEffect>

/** The company's standard: its versions, what a draft would have changed, and publishing. */
export const standardsApi = {
  listStandards: contract({
    method: 'get',
    path: '/standards',
    does: 'Every version of the standard, the newest first',
    roles: everyRole,
    answer: z.object({ standards: z.array(standard) })
  }),
  readNewestStandard: contract({
    method: 'get',
    path: '/standards/newest',
    does: 'The version of the standard in force',
    roles: everyRole,
    answer: z.object({ standard })
  }),
  publishStandard: contract({
    method: 'post',
    path: '/standards',
    does: 'Publish the next version of the standard',
    roles: ['lead'],
    body: z.strictObject({ standard: z.unknown() }),
    status: 201,
    answer: z.object({ id: z.string(), version: z.int() })
  }),
  readStandardEffect: contract({
    method: 'post',
    path: '/standards/effect',
    does: 'What a draft would have said differently of sealed visits, the latest first, some at a call',
    roles: ['lead'],
    body: z.strictObject({ standard: z.unknown(), before: moment.optional() }),
    answer: z.object({ looked: z.int(), next: moment.nullable(), changes: z.array(standardEffect) })
  })
}
