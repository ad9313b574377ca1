/** Several files at once, each a song of its own; what cannot be read is told, the others are there. */
import { api } from '../../api/client'
import { FileReading } from './filereading.svelte'

export class OpenFiles {
  under_way = $state('')
  failures = $state.raw<string[]>([])

  /** The number of songs that were stored. */
  async open(files: File[]): Promise<number> {
    this.failures = []
    let stored = 0
    for (const [at, file] of files.entries()) {
      this.under_way = `Reading ${at + 1} of ${files.length}: ${file.name}`
      try {
        await this.#store(file)
        stored += 1
      } catch (error) {
        this.failures = [...this.failures, error instanceof Error ? error.message : String(error)]
      }
    }
    this.under_way = ''
    return stored
  }

  async #store(file: File): Promise<void> {
    const reading = new FileReading()
    const first = await reading.open(file)
    if (!first) throw new Error(reading.error)
    for (let song = 0; song < Math.max(first.songs.length, 1); song += 1) {
      const found = song === 0 ? first : await reading.take(file.name, song)
      if (!found) throw new Error(reading.error)
      try {
        await api.addSong(found.text, crypto.randomUUID())
      } catch (error) {
        throw new Error(`${file.name}: ${error instanceof Error ? error.message : error}`)
      }
    }
  }
}
