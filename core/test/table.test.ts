import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readListed, readTable, unguarded, writeTable } from '@pasado/core/documents/table'
import { measurementsFromCsv } from '@pasado/core/documents/measurements-csv'
import { neighboursFromCsv } from '@pasado/core/documents/neighbours-csv'
import { readingsFromCsv, readingsToCsv } from '@pasado/core/documents/readings-csv'

const columns = { known: ['room', 'down_mbps', 'up_mbps', 'idle_ms'], needed: ['room'] }
const anyRoom = (name: string) => name

describe('a list', () => {
  it('names the line that an editor shows, blank lines and line ends in values counted', () => {
    const { rows, problems } = readTable(
      '\n\nroom,down_mbps,up_mbps,idle_ms\n\n"Kitchen,\nlarge",210,48,9\n\nStudy,1,2\n',
      columns
    )
    expect(rows.map(({ line, at }) => [line, at('room'), at('down_mbps')])).toEqual([[5, 'Kitchen,\nlarge', '210']])
    expect(problems.map(({ line }) => line)).toEqual([8])
    expect(measurementsFromCsv('room;band_ghz;down_mbps\n\n\nStudy;5;fast', anyRoom).problems[0]!.line).toBe(4)
    expect(neighboursFromCsv('band_ghz;channel;signal_dbm\n\n5;36;loud').problems[0]!.line).toBe(3)
  })

  it('with a decimal comma, parted by commas, is asked about and not read', () => {
    expect(
      measurementsFromCsv('room,band_ghz,signal_dbm,down_mbps,up_mbps,idle_ms\nKitchen,5,-60,210,5,48,2,9', anyRoom)
    ).toEqual({
      measurements: [],
      problems: [{ line: 2, problem: expect.stringContaining('decimal comma') as string }]
    })
    // One value less may hide one too.
    expect(
      measurementsFromCsv('room,band_ghz,signal_dbm,down_mbps,up_mbps,idle_ms\nKitchen,5,-60,210,5', anyRoom)
        .measurements
    ).toEqual([])
    expect(measurementsFromCsv('room,band_ghz,down_mbps\nKitchen,5,"210,5"', anyRoom).measurements).toMatchObject([
      { runs: [{ downMbps: 210.5 }] }
    ])
    expect(neighboursFromCsv('band_ghz,channel,signal_dbm\n5,36,-60,5').problems).toHaveLength(1)
  })

  it('is parted as its header is, whatever stands in its values', () => {
    expect(
      readTable('signal_dbm;band_ghz;y_m;unit;X_M;room\n-50,6;6;;"""Q""";;Küche, groß', {
        known: ['room', 'unit', 'band_ghz', 'signal_dbm', 'x_m', 'y_m'],
        needed: ['room']
      }).rows.map(({ at }) => [at('room'), at('unit'), at('signal_dbm')])
    ).toEqual([['Küche, groß', '"Q"', '-50,6']])
    expect(
      readTable('sep=;\nroom;down_mbps\nHall, left;5', columns).rows.map(({ line, at }) => [line, at('room')])
    ).toEqual([[3, 'Hall, left']])
    expect(readTable('\uFEFFroom\tdown_mbps\r\nHall\t5\r\n', columns).rows.map(({ line }) => line)).toEqual([2])
  })

  it('a comma before just three digits is asked about', () => {
    expect([readListed('1,234'), readListed('-12,345')]).toEqual([
      { problem: expect.stringContaining('1234 or 1.234') as string },
      { problem: expect.anything() as string }
    ])
    expect([
      readListed('0,123'),
      readListed('1234,5'),
      readListed('1.234'),
      readListed('12,34'),
      readListed('−64,5')
    ]).toEqual([0.123, 1234.5, 1.234, 12.34, -64.5])
  })

  it('that we wrote is read again, names that a spreadsheet takes for formulas as well', () => {
    const name = fc.stringMatching(/^[=+@A-Za-z-][ -~]{0,12}$/).filter((text) => text.trim() === text)
    fc.assert(
      fc.property(name, name, (room, unit) => {
        const readings = [{ room, unit, band: '5' as const, dbm: -60 }]
        expect(readingsFromCsv(readingsToCsv(readings), { rooms: [room], units: [unit] })).toEqual({
          readings,
          problems: []
        })
      }),
      { numRuns: 300 }
    )
    expect(unguarded("'=x")).toBe('=x')
    expect(writeTable(['a'], [['=x']])).toContain("'=x")
  })
})
