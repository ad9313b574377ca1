/** Saves of a song's text that can be undone: what stood before becomes the revision after. */
import type { QueryClient } from '@tanstack/svelte-query'
import { api, isStale, type Desk } from '../../api/client'
import { doneLately } from '../../done.svelte'

/** The screens fetch the song anew. */
export async function songMoved(queries: QueryClient, songId: number): Promise<void> {
  await queries.invalidateQueries({ queryKey: ['song', songId] })
  void queries.invalidateQueries({ queryKey: ['songs'] })
}

/** Do a save, then offer to undo it; one that came too late fetches what was saved meanwhile. */
export async function savedSong(
  queries: QueryClient,
  before: Desk,
  save: () => Promise<Desk>,
  told?: (saved: Desk) => string,
): Promise<Desk> {
  try {
    const saved = await save()
    await songMoved(queries, saved.id)
    const words = told?.(saved) ?? `${saved.title} is saved, writing ${saved.revision}`
    doneLately.tell(words, async () => {
      await api.save(saved.id, saved.revision, before.text)
      await songMoved(queries, saved.id)
    })
    return saved
  } catch (error) {
    if (isStale(error)) void songMoved(queries, before.id)
    throw error
  }
}
