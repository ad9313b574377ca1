<script lang="ts">
  import { Dialog } from 'bits-ui'
  import { sideBySide } from './conflict'

  interface Props {
    open: boolean
    what: string // `this song`
    theirs: string
    mine: string
    busy?: boolean
    ontake: () => void
    onkeep: () => void
    onedit: () => void
  }
  let { open, what, theirs, mine, busy = false, ontake, onkeep, onedit }: Props = $props()
  const pairs = $derived(sideBySide(theirs, mine))
</script>

<Dialog.Root {open} onOpenChange={(next) => !next && onedit()}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-ink/40" />
    <Dialog.Content class="conflict-sheet">
      <div>
        <Dialog.Title class="text-xl">Somebody saved {what} meanwhile</Dialog.Title>
        <Dialog.Description class="mt-1 max-w-prose text-quiet">
          Nothing was overwritten. Lines that differ are marked; choose what becomes the next revision.
        </Dialog.Description>
      </div>
      <div class="min-h-0 overflow-auto border border-contour bg-raised">
        <table class="w-full table-fixed border-collapse text-sm">
          <thead>
            <tr class="text-left">
              <th class="sticky top-0 bg-paper px-3 py-1.5" scope="col">Saved meanwhile</th>
              <th class="sticky top-0 border-l border-contour bg-paper px-3 py-1.5" scope="col">Yours</th>
            </tr>
          </thead>
          <tbody class="font-mono">
            {#each pairs as pair, index (index)}
              <tr class:conflict-row={pair.differs} data-differs={pair.differs}>
                {#each [pair.theirs, pair.mine] as line, side (side)}
                  <td class="overflow-x-auto px-3 whitespace-pre {side ? 'border-l border-contour' : ''}">
                    {#if pair.differs && line !== null}<span class="text-changed" aria-label="differs"
                        >◆
                      </span>{/if}{line ?? ''}
                  </td>
                {/each}
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
      <div class="flex flex-wrap justify-end gap-3">
        <button class="quiet-button" disabled={busy} onclick={ontake}>Take what was saved</button>
        <button class="quiet-button" disabled={busy} onclick={onedit}>Go on editing mine</button>
        <button class="key-button" disabled={busy} onclick={onkeep}>Keep mine as the next revision</button>
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
