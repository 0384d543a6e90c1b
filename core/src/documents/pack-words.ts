import type { Condition, ModelState } from '../catalogue/model'
import { lookWords, type LampColour, type LampPattern } from '../catalogue/look'
import type { Choice } from '../record/answers'

/** The languages that a pack is made in. */
export type PackLanguage = 'en' | 'es'

/** Every word of the pack in one language. */
export interface PackWords {
  title: string
  join: string
  joinHow: string
  forGuests: string
  forHome: string
  forOffice: string
  forEquipment: string
  logins: string
  loginsHow: string
  user: string
  saidSo: string
  blank: string
  password: string
  name: string
  passphrase: string
  open: string
  notKept: string
  whereAll: string
  allWell: string
  wrong: string
  steps: (company: string, phone: string) => string[]
  chose: string
  choices: Record<Choice, string>
  answers: Record<string, string>
  notAsked: string
  plan: string
  settle: string
  settleSays: (when: string | null) => string
  power: string
  powerSays: string
  look: (look: { colour: string; pattern: LampPattern }) => string
  /** What a state means and what to do. */
  state: (state: ModelState) => string
  locale: string
  /** Between the number of a page and how many there are. */
  of: string
}

const english: PackWords = {
  title: 'Your home network',
  join: 'Join it',
  joinHow:
    'Point a phone’s camera at the square, or choose the name and type the passphrase. O is a letter, 0 is a zero with a stroke.',
  forGuests: 'For guests',
  forHome: 'For your home',
  forOffice: 'For the office',
  forEquipment: 'For devices',
  logins: 'The settings of your units',
  loginsHow: 'Only to change settings, never to join. Keep it apart from the passphrase.',
  user: 'User',
  saidSo: 'as it is said; the square has it letter by letter',
  blank: '␣ is a blank',
  password: 'Password',
  name: 'Name',
  passphrase: 'Passphrase',
  open: 'none: anybody can join',
  notKept: 'not kept by us',
  whereAll: 'Where everything stands, and its lamp',
  allWell: 'All is well:',
  wrong: 'If it does not work',
  steps: (company, phone) => [
    'Look at the lamps above: each says what to do.',
    'Restart: unplug the gateway or router, wait ten seconds, plug it in, wait five minutes.',
    `Still not? Call ${company}, ${phone}. Say what the lamps show.`
  ],
  chose: 'What you chose',
  choices: {
    guest: 'Guest network',
    parental: 'Parental controls',
    security: 'Security service',
    updates: 'Automatic updates',
    lamp: 'Status lamps'
  },
  answers: {
    yes: 'yes',
    no: 'no',
    automatic: 'automatic',
    managed: 'managed by us',
    bright: 'bright',
    dim: 'dim',
    off: 'off'
  },
  notAsked: 'not asked yet',
  plan: 'Where it stands in your home',
  settle: 'The first day',
  settleSays: (when) =>
    `The units find the best ways to each other in the first day: it may be slower until then.${when ? ` We look at it again on ${when}.` : ''}`,
  power: 'No calls in a power cut. ',
  powerSays:
    'Your telephone goes through the network box. Without mains power it cannot call anybody, emergency services included. Keep a charged mobile phone.',
  look: lookWords,
  state: (state) => `${state.meaning}. ${state.action}.`,
  locale: 'en-GB',
  of: 'of'
}

const colours: Record<LampColour, string> = {
  off: 'apagada',
  white: 'blanca',
  blue: 'azul',
  cyan: 'cian',
  green: 'verde',
  amber: 'ámbar',
  orange: 'naranja',
  red: 'roja',
  purple: 'morada'
}
const patterns: Record<LampPattern, string> = {
  off: 'apagada',
  solid: 'fija',
  blink: 'parpadea',
  'fast-blink': 'parpadea rápido',
  pulse: 'late despacio',
  alternate: 'alterna'
}
const conditions: Partial<Record<Condition, string>> = {
  booting: 'Está arrancando. Espere unos minutos.',
  ready: 'Espera a ser configurado. Llámenos.',
  pairing: 'Se está uniendo. Espere unos minutos.',
  weak: 'La señal es débil. Acérquelo al equipo anterior.',
  'no-link': 'No encuentra al equipo anterior. Acérquelo y reinícielo.',
  'no-internet': 'No hay internet. Reinicie el módem y luego el rúter.',
  failed: 'No pudo unirse. Llámenos.',
  updating: 'Se está actualizando. No lo desenchufe.',
  resetting: 'Vuelve a los ajustes de fábrica. Llámenos.',
  'no-line': 'No llega la línea. Mire el cable de la pared; si está bien, llámenos.',
  'line-seeking': 'Busca la línea. Espere unos minutos.',
  'line-training': 'Ajusta la línea. Puede durar media hora.',
  'line-login': 'Se conecta al proveedor. Espere unos minutos.',
  'login-refused': 'El proveedor no lo admite. Llámenos.',
  'radio-off': 'El wifi está apagado. Enciéndalo con su botón o llámenos.',
  off: 'No tiene corriente. Mire el adaptador y el enchufe.',
  'over-budget': 'No recibe bastante corriente. Llámenos.'
}

const spanish: PackWords = {
  title: 'La red de su casa',
  join: 'Cómo conectarse',
  joinHow:
    'Apunte la cámara del teléfono al cuadrado, o elija el nombre y escriba la contraseña. O es una letra; 0 es un cero con una raya.',
  forGuests: 'Para invitados',
  forHome: 'Para su casa',
  forOffice: 'Para la oficina',
  forEquipment: 'Para aparatos',
  logins: 'Los ajustes de sus equipos',
  loginsHow: 'Solo para cambiar ajustes, nunca para conectarse. Guárdela aparte.',
  user: 'Usuario',
  saidSo: 'así se dice; el cuadrado lo tiene letra por letra',
  blank: '␣ es un espacio',
  password: 'Contraseña de administración',
  name: 'Nombre',
  passphrase: 'Contraseña',
  open: 'ninguna: cualquiera puede entrar',
  notKept: 'no la guardamos',
  whereAll: 'Dónde está cada equipo, y su luz',
  allWell: 'Todo va bien:',
  wrong: 'Si no funciona',
  steps: (company, phone) => [
    'Mire las luces de arriba: cada una dice qué hacer.',
    'Reinicie: desenchufe el equipo principal, espere diez segundos, enchúfelo y espere cinco minutos.',
    `¿Sigue igual? Llame a ${company}, ${phone}. Diga qué muestran las luces.`
  ],
  chose: 'Lo que usted eligió',
  choices: {
    guest: 'Red para invitados',
    parental: 'Control parental',
    security: 'Servicio de seguridad',
    updates: 'Actualizaciones automáticas',
    lamp: 'Luces de estado'
  },
  answers: {
    yes: 'sí',
    no: 'no',
    automatic: 'automáticas',
    managed: 'las hacemos nosotros',
    bright: 'fuertes',
    dim: 'suaves',
    off: 'apagadas'
  },
  notAsked: 'sin preguntar todavía',
  plan: 'Dónde está en su casa',
  settle: 'El primer día',
  settleSays: (when) =>
    `Los equipos buscan el mejor camino entre ellos durante el primer día: hasta entonces puede ir más lento.${when ? ` Lo revisaremos el ${when}.` : ''}`,
  power: 'Sin llamadas en un apagón. ',
  powerSays:
    'Su teléfono pasa por el equipo de red. Sin corriente no puede llamar a nadie, tampoco a emergencias. Tenga a mano un móvil cargado.',
  look: ({ colour, pattern }) =>
    pattern === 'off' || colour === 'off'
      ? 'apagada'
      : `${colour
          .split('/')
          .map((colour) => colours[colour as LampColour] ?? colour)
          .join(' y ')}, ${patterns[pattern]}`,
  // What the catalogue says of a state is in English; its condition has words in every language.
  state: ({ is }) => (is && conditions[is]) ?? 'No es lo normal. Reinicie; si sigue así, llámenos.',
  locale: 'es',
  of: 'de'
}

/** What a network is for, in the words of a pack; packs of before tell guests apart only. */
export function usedFor(
  words: PackWords,
  { use, guests }: { use?: 'main' | 'guest' | 'office' | 'equipment' | undefined; guests: boolean }
): string {
  return { main: words.forHome, guest: words.forGuests, office: words.forOffice, equipment: words.forEquipment }[
    use ?? (guests ? 'guest' : 'main')
  ]
}

/** The words of a language. */
export const packWords: Readonly<Record<PackLanguage, PackWords>> = { en: english, es: spanish }
