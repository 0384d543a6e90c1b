declare module 'woff2sfnt-sfnt2woff' {
  const woff: { toSfnt: (packed: Buffer) => Buffer }
  export default woff
}
