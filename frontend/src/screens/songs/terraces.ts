/** Songs on the staircase: a terrace holds what lies between one whole Step and the next. */
export interface Terrace<Song> {
  step: number
  songs: Song[]
}

export function terraceOf(step: number): number {
  return Math.floor(step + 0.05) // as it is shown: 4.96 reads 5.0
}

export function terraces<Song extends { step: number }>(songs: readonly Song[]): Terrace<Song>[] {
  const steps = [...new Set(songs.map((song) => terraceOf(song.step)))].sort((a, b) => a - b)
  return steps.map((step) => ({ step, songs: songs.filter((song) => terraceOf(song.step) === step) }))
}
