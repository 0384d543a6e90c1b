/** The colours of the plastic that ports are moulded in, by the catalogue's words; what it does not name is grey. */
const colours: Record<string, string> = {
  blue: '#2B62B8',
  grey: '#8F8A94',
  yellow: '#D9A400',
  black: '#2A2630',
  white: '#E9E4DA',
  green: '#3C8A4E',
  metal: '#B9B4AC'
}

export const plasticOf = (colour: string): string => colours[colour] ?? colours.grey!
