/** What is done to the library as a whole; each can be undone by what was kept of it. */
import type { QueryClient } from '@tanstack/svelte-query'
import { api, type Contents } from '../../api/client'
import { doneLately } from '../../done.svelte'

export class LibraryState {
  busy = $state('') // what is being done
  failure = $state('')
  asked = $state.raw<Contents | null>(null) // the copy that is about to be put back
  readonly #queries: QueryClient

  constructor(queries: QueryClient) {
    this.#queries = queries
  }

  /** Look into a file from somewhere else; nothing is replaced by that. */
  async open(file: File): Promise<void> {
    await this.#do(`Looking into ${file.name} …`, async () => (this.asked = await api.takeBackup(file)))
    await this.#queries.invalidateQueries({ queryKey: ['library'] })
  }

  async lookInto(name: string): Promise<void> {
    await this.#do('Looking into the copy …', async () => (this.asked = await api.copyContents(name)))
  }

  /** Put the copy that was asked about in the place of everything. */
  async restore(): Promise<void> {
    const asked = this.asked!
    await this.#do('Restoring …', async () => {
      const { kept } = await api.restoreCopy(asked.name)
      await this.#queries.invalidateQueries()
      this.#tell(`${songs(asked.songs)} restored`, kept)
      this.asked = null
    })
  }

  /** The demo as it was at first. */
  async beginOver(): Promise<void> {
    await this.#do('Starting the demo over …', async () => {
      const { kept } = await api.beginDemoOver()
      await this.#queries.invalidateQueries()
      this.#tell('The demo is started over', kept)
    })
  }

  async putDemoSongsIn(): Promise<void> {
    await this.#do('Putting the demo songs in …', async () => {
      await api.putDemoSongsIn()
      await this.#queries.invalidateQueries()
    })
  }

  #tell(words: string, kept: string): void {
    doneLately.tell(words, async () => {
      await api.restoreCopy(kept)
      await this.#queries.invalidateQueries()
    })
  }

  async #do(what: string, work: () => Promise<unknown>): Promise<void> {
    if (this.busy) return
    this.failure = ''
    this.busy = what
    try {
      await work()
    } catch (error) {
      this.failure = error instanceof Error ? error.message : String(error)
    } finally {
      this.busy = ''
    }
  }
}

export function songs(count: number): string {
  return count === 1 ? 'one song' : `${count} songs`
}

/** `2.4 MB`, `310 kB`. */
export function sizeOf(bytes: number): string {
  return bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`
}

/** A time of the server (UTC) as it is told here. */
export function timeOf(utc: string): string {
  return new Date(`${utc}Z`).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
}
