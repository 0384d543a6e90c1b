import type { api } from '@pasado/core/api/all'
import { demoModels } from '@pasado/demo/models/all'
import type { Standard } from '@pasado/core/policy/standard'
import type { Caller } from '@pasado/testing/company'
import { draft, openAVisit } from '@pasado/testing/company'

/** A company that is called, and things of it to ask for. */
export interface Called {
  lead: Caller
  technician: Caller
  office: Caller
  home: { id: string; customer: string; street: string }
  /** A sealed visit there, and an open one elsewhere. */
  sealed: string
  open: string
  /** A draft of the standard. */
  standard: Standard
  entry: number
}

type Calls = Record<string, (company: Called) => Promise<number>>

const got = async (caller: Caller, path: string, body?: unknown): Promise<number> =>
  (await caller.call(body === undefined ? 'GET' : 'POST', path, body)).status
const word = (text: string) => encodeURIComponent(text.split(' ')[0]!.toLowerCase())

/** How often each call is asked of a page far into its list. */
const pagesOn = async (caller: Caller, path: string, pages: number): Promise<number> => {
  let next = ''
  for (let page = 0; page < pages; page++) {
    const { body } = await caller.call<{ next: string | null }>('GET', `${path}${next}`)
    if (!body.next) break
    next = `&after=${encodeURIComponent(body.next)}`
  }
  return got(caller, `${path}${next}`)
}

const [model] = demoModels

/** Every call of the API: how it is asked here, or why it cannot grow with the homes of a company. */
export const growthCalls = {
  logIn: 'looks for one person by name, and takes as long as the password’s hash',
  whoIsLoggedIn: { 'who is logged in': ({ lead }) => got(lead, '/session') },
  choosePassword: 'writes one person',
  passwordAgain: 'reads one person',
  logOut: 'ends one session',
  logOutEverywhere: 'ends the sessions of one person',
  readDay: {
    'the Day, mine': ({ technician }) => got(technician, '/day'),
    'the Day, everybody’s, for a lead': ({ lead }) => got(lead, '/day?whose=all')
  },
  readDayPage: {
    'the overdue, by the page': ({ lead }) =>
      got(
        lead,
        `/day/visits?whose=all&part=upcoming&after=${encodeURIComponent(Buffer.from(JSON.stringify({ key: new Date(0).toISOString(), id: '' })).toString('base64url'))}`
      )
  },
  readDayPlan: { 'planning a day': ({ lead, open }) => got(lead, `/day/plan?visits=${open}`) },
  readWays: { ways: ({ lead }) => got(lead, '/ways') },
  setTravel: 'writes one way between two towns',
  setWindows: 'writes the windows of one way',
  readCalendar: { calendar: ({ technician }) => got(technician, '/day/calendar') },
  findHomes: {
    'homes by a name': ({ lead, home }) => got(lead, `/homes?q=${encodeURIComponent(home.customer)}`),
    'homes by a first name': ({ lead, home }) => got(lead, `/homes?q=${word(home.customer)}`),
    'homes by a street and number': ({ lead, home }) => got(lead, `/homes?q=${encodeURIComponent(home.street)}`),
    'homes by two letters': ({ lead }) => got(lead, '/homes?q=tr'),
    'homes by two common words': ({ lead }) => got(lead, '/homes?q=skerrow+row'),
    'homes by a word nobody has': ({ lead }) => got(lead, '/homes?q=zzyzx'),
    'homes by a model': ({ lead }) => got(lead, '/homes?model=ostrel-tern'),
    'homes by a model and version': ({ lead }) => got(lead, '/homes?model=ostrel-tern&firmware=3.0.0'),
    'homes by a word and a model': ({ lead, home }) => got(lead, `/homes?q=${word(home.customer)}&model=ostrel-tern`),
    'homes by a rule': ({ lead }) => got(lead, '/homes?rule=firm-minimum'),
    'homes by a rule, unproven': ({ lead }) => got(lead, '/homes?rule=place-final&outcome=unproven'),
    'homes by street': ({ lead }) => got(lead, '/homes'),
    'homes by street, five pages on': ({ lead }) => pagesOn(lead, '/homes?', 5)
  },
  readHome: { 'a home': ({ lead, home }) => got(lead, `/homes/${home.id}`) },
  openVisit: { 'opening a visit': async ({ technician }) => ((await openAVisit(technician)) ? 200 : 0) },
  handVisit: 'writes one visit',
  cancelVisit: 'writes one visit',
  reopenVisit: 'writes one visit',
  readVisit: { 'a visit': ({ lead, sealed }) => got(lead, `/visits/${sealed}`) },
  readEntries: { 'its entries': ({ lead, sealed }) => got(lead, `/visits/${sealed}/entries?after=2`) },
  listenToVisit: 'listens to one visit',
  writeEntries: {
    'an entry': ({ technician, open }) =>
      got(technician, `/visits/${open}/entries`, { entries: [draft(open, 'note.written', { text: 'one more line' })] }),
    'a unit with a serial number': (company) => {
      const set = { name: 'Node', model: 'ostrel-tern', modelVersion: 1, serial: `GROW-${(company.entry += 1)}` }
      const unit = draft(company.open, 'unit.set', { id: '00000000-0000-4000-8000-0000000000aa', set })
      return got(company.technician, `/visits/${company.open}/entries`, { entries: [unit] })
    }
  },
  keepSecret: 'writes one visit',
  showSecret: 'reads one visit, and counts what one person saw in an hour',
  eraseSecrets: 'writes one visit',
  sealVisit: 'writes one visit; the figures follow, fifty visits at a time',
  moveStandard: 'writes one visit',
  makePack: 'reads one visit',
  makeRecordPdf: { 'a record as PDF': ({ lead, sealed }) => got(lead, `/visits/${sealed}/record.pdf`) },
  exportVisit: { 'a record as a file': ({ lead, sealed }) => got(lead, `/visits/${sealed}/export`) },
  exportWithSecrets: 'reads one visit',
  importVisit: 'writes one visit',
  tellNothingWaits: 'writes one outbox',
  readUnheard: {
    'who was not heard from': ({ technician, open }) => got(technician, `/visits/${open}/not-heard-from`)
  },
  readAfterSeal: { 'lines after a seal': ({ lead, sealed }) => got(lead, `/visits/${sealed}/after-seal`) },
  keepPhoto: 'writes one visit',
  readPhoto: 'reads one photo by its key',
  showLabelPhoto: 'reads one photo by its key',
  makePackLink: 'writes one link',
  listPackLinks: { 'links to packs': ({ lead, sealed }) => got(lead, `/visits/${sealed}/pack-links`) },
  endPackLink: 'writes one link',
  openPack: 'reads one link by its key',
  readCatalogue: { catalogue: ({ lead }) => got(lead, '/catalogue') },
  publishModel: 'writes one model',
  offerModel: 'writes one model',
  readModelEffect: { 'what a model would change': ({ lead }) => got(lead, '/models/effect', { model }) },
  importModels: 'writes models',
  listStandards: { standards: ({ lead }) => got(lead, '/standards') },
  readNewestStandard: { 'the newest standard': ({ lead }) => got(lead, '/standards/newest') },
  publishStandard: 'writes one standard',
  readStandardEffect: {
    'what a draft would have said': ({ lead, standard }) => got(lead, '/standards/effect', { standard })
  },
  readFigures: { figures: ({ lead }) => got(lead, '/figures?months=60') },
  readFiguresOfRule: { 'figures of a rule': ({ lead }) => got(lead, '/figures/firm-minimum?months=60') },
  readVersionsInUse: { 'how many run each version': ({ office }) => got(office, '/advisory/ostrel-tern') },
  findAffectedUnits: {
    'units that run a version': ({ office }) => got(office, '/advisory/ostrel-tern/homes?version=3.0.0'),
    'units of an unknown version': ({ office }) => got(office, '/advisory/ostrel-tern/homes?unknown=true')
  },
  readCheck: 'reads one check by its key',
  tellCheckResult: 'writes one check',
  readDurations: { 'how long waits took': ({ technician }) => got(technician, '/durations?of=ostrel-tern:start') },
  listHouses: 'reads practice houses',
  readHouseLabel: 'reads one practice house',
  putUpHouse: 'writes one practice house',
  readHouse: 'reads one practice house',
  actInHouse: 'writes one practice house',
  readUnit: 'reads one practice house',
  readKeys: { keys: ({ lead }) => got(lead, '/keys') },
  readUnknownKeys: { 'unknown keys': ({ lead }) => got(lead, '/keys/unknown') },
  confirmKey: 'writes one key',
  listPeople: { people: ({ lead }) => got(lead, '/people') },
  addPerson: 'writes one person',
  changePerson: 'writes one person',
  givePassword: 'writes one person',
  listTechnicians: { technicians: ({ lead }) => got(lead, '/technicians') }
} satisfies Record<keyof typeof api, Calls | string>
