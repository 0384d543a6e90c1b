/** The reasons for a visit, in words. */
export const reasonWords = {
  new: 'new installation',
  extend: 'extend',
  convert: 'convert an old router',
  'add-node': 'add a node',
  swap: 'swap',
  fault: 'fault'
} as const
