/** What a process is started with to have a clock that is off, such as +3d; what waits for a while waits as long as ever. */
export function clockOff(by: string): Record<string, string> {
  const library = process.env.PASADO_FAKETIME
  if (!library) throw new Error('run it by npm run chaos: the library that puts clocks off is fetched there')
  return { LD_PRELOAD: library, FAKETIME: by, FAKETIME_DONT_FAKE_MONOTONIC: '1', DONT_FAKE_MONOTONIC: '1' }
}
