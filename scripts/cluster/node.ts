import { clockOff } from './clock'
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { existsSync, mkdirSync, openSync, readFileSync } from 'node:fs'
import { userInfo } from 'node:os'
import { join } from 'node:path'
import { installData } from '../mariadb'
import mysql, { type RowDataPacket } from 'mysql2/promise'

const PROVIDER = '/usr/lib/galera/libgalera_smm.so'
/** A node that gets all its data from another takes a while. */
const READY_MS = 120_000

/** Where a node listens: for clients, the other nodes, what it missed, and all data anew. */
export interface NodePorts {
  sql: number
  group: number
  missed: number
  whole: number
}

/** The ports of the nodes of a cluster, from a first one on. */
export const portsFrom = (base: number, at: number): NodePorts => ({
  sql: base + at,
  group: base + 10 + at,
  missed: base + 20 + at,
  whole: base + 30 + at
})

/** One MariaDB of a cluster, with a folder of its own. */
export class GaleraNode {
  #child: ChildProcess | null = null
  readonly name: string

  /** @param all the ports of every node, this one's at `at` */
  constructor(
    private readonly folder: string,
    private readonly all: readonly NodePorts[],
    readonly at: number
  ) {
    this.name = `db${at + 1}`
  }

  get ports(): NodePorts {
    return this.all[this.at]!
  }

  get pid(): number {
    return this.#child?.pid ?? 0
  }

  get isRunning(): boolean {
    return this.#child !== null && this.#child.exitCode === null && this.#child.signalCode === null
  }

  /**
   * @param first begins the cluster: one node of one that has none, or whose nodes all ended
   * @param init SQL that a new cluster begins with
   * @param clock how far its clock is off, such as -3d
   */
  async start(first: boolean, init?: string, clock?: string): Promise<void> {
    const own = join(this.folder, this.name)
    const [data, passing] = [join(own, 'data'), join(own, 'tmp')]
    for (const path of [data, passing]) mkdirSync(path, { recursive: true, mode: 0o700 })
    if (first && !existsSync(join(data, 'mysql'))) installData(data, { ...process.env, TMPDIR: passing })
    const log = openSync(join(own, 'mariadb.log'), 'a', 0o600)
    const child = spawn(
      'mariadbd',
      [...this.#settings(own), ...(first ? ['--wsrep-new-cluster'] : []), ...(init ? [`--init-file=${init}`] : [])],
      {
        stdio: ['ignore', log, log],
        env: { ...process.env, ...(clock && clockOff(clock)), TMPDIR: passing }
      }
    )
    this.#child = child
    await this.ready()
  }

  /** Waits until it takes part. @throws Error with the end of its log */
  async ready(): Promise<void> {
    const until = Date.now() + READY_MS
    while (Date.now() < until && this.isRunning) {
      if ((await this.status()).isIn) return
      await new Promise((resolve) => setTimeout(resolve, 200))
    }
    const log = readFileSync(join(this.folder, this.name, 'mariadb.log'), 'utf8')
      .split('\n')
      .slice(-15)
      .join('\n')
    throw new Error(`${this.name} did not come into the cluster:\n${log}`)
  }

  /** Cuts it off from the other nodes, or puts it back: it runs, and clients reach it. */
  async cutOff(isCut: boolean): Promise<void> {
    const connection = await this.asRoot()
    await connection.query(`SET GLOBAL wsrep_provider_options = 'gmcast.isolate=${Number(isCut)}'`)
    await connection.end()
  }

  /** Puts its data on a disk of its own of so many megabytes, where this user may; before it is started first. @returns whether it is */
  ownDisk(megabytes: number): boolean {
    const data = join(this.folder, this.name, 'data')
    mkdirSync(data, { recursive: true, mode: 0o700 })
    return spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m,mode=700`, 'tmpfs', data]).status === 0
  }

  /** Takes the disk of its own away. */
  takeDisk(): void {
    spawnSync('umount', [join(this.folder, this.name, 'data')])
  }

  /** How it stands, asked as whoever made it. */
  async status(): Promise<{ isIn: boolean; size: number }> {
    try {
      const connection = await this.asRoot()
      const [rows] = await connection.query<RowDataPacket[]>("SHOW GLOBAL STATUS LIKE 'wsrep_%'")
      await connection.end()
      const of = new Map(rows.map((row) => [String(row.Variable_name), String(row.Value)]))
      return {
        isIn: of.get('wsrep_local_state') === '4' && of.get('wsrep_cluster_status') === 'Primary',
        size: Number(of.get('wsrep_cluster_size'))
      }
    } catch {
      return { isIn: false, size: 0 }
    }
  }

  /** A sum of each table’s lines, once what the others wrote is here. */
  async checksums(): Promise<Map<string, string>> {
    const connection = await this.asRoot()
    await connection.query('SET SESSION wsrep_sync_wait = 15')
    const [tables] = await connection.query<RowDataPacket[]>(
      "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = 'pasado'"
    )
    const sums = new Map<string, string>()
    for (const { name } of tables as { name: string }[]) {
      const [[sum]] = await connection.query<RowDataPacket[]>('CHECKSUM TABLE pasado.??', [name])
      sums.set(name, String(sum!.Checksum))
    }
    await connection.end()
    return sums
  }

  /** A connection by its socket. */
  asRoot(): Promise<mysql.Connection> {
    return mysql.createConnection({ socketPath: join(this.folder, this.name, 'm.sock'), user: userInfo().username })
  }

  /** Tells it something, and waits until it has ended where that ends it. */
  async tell(signal: 'SIGTERM' | 'SIGKILL' | 'SIGSTOP' | 'SIGCONT'): Promise<void> {
    const child = this.#child
    if (!child || !this.isRunning) return
    child.kill(signal)
    if (signal === 'SIGTERM' || signal === 'SIGKILL')
      await new Promise<void>((resolve) => (this.isRunning ? child.once('exit', () => resolve()) : resolve()))
  }

  #settings(own: string): string[] {
    const { sql, group, missed, whole } = this.ports
    const others = this.all.map((_, at) => at).filter((at) => at !== this.at)
    // The first node is the one that is written to: it gives its data away only where no other can.
    const donors = [...others].sort((a, b) => b - a).map((at) => `db${at + 1}`)
    return [
      '--no-defaults',
      ...(userInfo().uid === 0 ? ['--user=root'] : []),
      `--datadir=${join(own, 'data')}`,
      `--socket=${join(own, 'm.sock')}`,
      `--pid-file=${join(own, 'mariadb.pid')}`,
      '--bind-address=127.0.0.1',
      `--port=${sql}`,
      '--skip-name-resolve',
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_unicode_ci',
      '--default-time-zone=+00:00',
      '--sql-mode=STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION,ERROR_FOR_DIVISION_BY_ZERO',
      '--innodb-buffer-pool-size=128M',
      '--innodb-flush-log-at-trx-commit=1',
      '--innodb-autoinc-lock-mode=2',
      '--default-storage-engine=InnoDB',
      '--binlog-format=ROW',
      '--performance-schema=OFF',
      '--wsrep-on=ON',
      `--wsrep-provider=${PROVIDER}`,
      '--wsrep-cluster-name=pasado',
      `--wsrep-cluster-address=gcomm://${this.all.map((ports) => `127.0.0.1:${ports.group}`).join(',')}`,
      `--wsrep-node-name=${this.name}`,
      `--wsrep-node-address=127.0.0.1:${group}`,
      '--wsrep-sst-method=rsync',
      `--wsrep-sst-receive-address=127.0.0.1:${whole}`,
      `--wsrep-sst-donor=${donors.join(',')},`,
      `--wsrep-provider-options=gmcast.listen_addr=tcp://127.0.0.1:${group};ist.recv_addr=127.0.0.1:${missed};gcache.size=64M;pc.recovery=TRUE`
    ]
  }
}
