/** A file on its way into the text: it can be stopped, and one of several songs in it taken. */
import { api, type Import } from '../../api/client'

export const LARGEST_KB = 1_400

export type Imported = Import & { name: string }

export class FileReading {
  under_way = $state('') // the name of the file that is being read
  error = $state('')
  imported = $state.raw<Imported | null>(null)
  song = $state(0) // which of several is shown
  #call: AbortController | undefined
  #content = ''

  async open(file: File): Promise<Imported | null> {
    this.forget()
    if (file.size > LARGEST_KB * 1024) {
      this.error = `${file.name} has ${Math.round(file.size / 1024)} kB; expected at most ${LARGEST_KB} kB.`
      return null
    }
    this.#content = base64Of(new Uint8Array(await file.arrayBuffer()))
    return this.take(file.name, 0)
  }

  /** One of the songs of the file that was opened. */
  async take(name: string, song: number): Promise<Imported | null> {
    this.error = ''
    this.under_way = name
    const call = new AbortController()
    this.#call = call
    try {
      const found = await api.lookAtFile(name, this.#content, song, call.signal)
      this.imported = { name, ...found }
      this.song = song
      return this.imported
    } catch (error) {
      if (!call.signal.aborted) this.error = `${name}: ${error instanceof Error ? error.message : error}`
      return null
    } finally {
      if (this.#call === call) this.under_way = ''
    }
  }

  stop(): void {
    this.#call?.abort()
    this.under_way = ''
  }

  forget(): void {
    this.stop()
    this.error = ''
    this.imported = null
    this.song = 0
  }
}

function base64Of(bytes: Uint8Array): string {
  let binary = ''
  for (let at = 0; at < bytes.length; at += 0x8000)
    binary += String.fromCharCode(...bytes.subarray(at, at + 0x8000))
  return btoa(binary)
}
