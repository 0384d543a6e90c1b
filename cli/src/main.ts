import { calc } from './calc'
import { besideServer } from './beside-server'
import { check } from './check'
import { demo } from './demo'
import { exportVisit, importVisit } from './transfer'
import { verify } from './verify'

const usage = `pasado calc NAME < input.json         compute one thing; --each: one JSON document a line
pasado calc --list                     every computation
pasado calc NAME --schema              the JSON Schema of its input and output
pasado check FILE [--json]             each rule's outcome for a record file; exit 0 all musts hold, 1 some do not, 2 unreadable
pasado verify FILE [--key HEX]         prove a sealed record file; exit 0 proven, 1 not, 2 unreadable
pasado verify --seal TEXT --key HEX    prove the code beside the seal on a record; - reads it from standard input
pasado export VISIT [--secrets]        a visit as a record file on standard output
pasado import FILE [--secrets]         take a record file in
pasado labels demo|VISIT [--out DIR] [--condition print|clean|worn|bad] [--secrets]
                                       labels of units as PNG, and a sheet of them as PDF, for practice
pasado demo --homes N                  add a generated company of N homes to the database that npm start keeps, or DATABASE_URL

pasado backup DIR --keys FILE          back the company up while it runs: the database into a folder of DIR, all keys into FILE in place of the copy before
pasado restore FOLDER --keys FILE [--binary-log FILE … --until MOMENT]
                                       put a backup into an empty database, up to a moment after it where the binary log is there
pasado archive DIR --before DAY        move lines and photos of visits sealed before a day into files, read back and verified; they are found and opened as before
pasado archive DIR --was OLD           says that an archive was brought to another folder, once every file was found there whole
pasado archive --back VISIT            puts an archived visit back into the database
pasado keys send|take|renew|back FILE  epoch keys: to another machine, from one, the next one, from the copy of a backup
backup and restore seal to PASADO_PASSPHRASE, or to a key file of 64 hexadecimal digits: --sealed-to FILE

export, import and labels VISIT speak to a running server: PASADO_URL (http://127.0.0.1:4180), PASADO_LOGIN, PASADO_PASSWORD;
with --secrets the passphrase is read from PASADO_PASSPHRASE.`

/** Runs one command. @returns the exit status */
export async function main(words: readonly string[]): Promise<number> {
  const [command, ...rest] = words
  switch (command) {
    case 'calc':
      return calc(rest)
    case 'check':
      return check(rest)
    case 'verify':
      return verify(rest)
    case 'export':
      return exportVisit(rest)
    case 'import':
      return importVisit(rest)
    case 'demo':
      return demo(rest)
    // Drawing takes a library of its own, which the other commands do not wait for.
    case 'labels':
      return (await import('./labels')).labels(rest)
    case 'archive':
    case 'backup':
    case 'restore':
    case 'keys':
      return besideServer(command, rest)
    case '--help':
    case 'help':
      console.log(usage)
      return 0
    default:
      console.error(command ? `pasado has no command ${command}.\n\n${usage}` : usage)
      return 2
  }
}
