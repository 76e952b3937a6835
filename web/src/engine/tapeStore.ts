import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import type { Part } from './tapes'

interface Kept extends DBSchema {
  parts: { key: [string, string, number]; value: Part }
}

/** Where what was recorded lies in this browser until it is safe. */
export class TapeStore {
  private db: Promise<IDBPDatabase<Kept>> | null = null

  private open() {
    this.db ??= openDB<Kept>('shoal-recordings', 1, {
      upgrade: (db) => void db.createObjectStore('parts', { keyPath: ['recording', 'row', 'at'] }),
    })
    return this.db
  }

  keep = async (p: Part) => this.quietly(async (db) => void (await db.put('parts', p)))

  drop = async (p: Part) => this.quietly((db) => db.delete('parts', [p.recording, p.row, p.at]))

  /** All parts that are kept, in the order in which they came. */
  async all(): Promise<Part[]> {
    return (await this.open()).getAll('parts')
  }

  private async quietly(run: (db: IDBPDatabase<Kept>) => Promise<void>) {
    try {
      await run(await this.open())
    } catch {
      // a browser that keeps nothing still records: it is sent all the same
    }
  }
}
