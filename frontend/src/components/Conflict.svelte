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
  const sides = ['theirs', 'mine'] as const
  const panes = $state<(HTMLElement | null)[]>([null, null])

  /** Both sides show the same lines: where one is scrolled, the other follows. */
  function follow(at: number): void {
    const [moved, other] = [panes[at], panes[1 - at]]
    if (!moved || !other) return
    other.scrollTop = moved.scrollTop
    other.scrollLeft = moved.scrollLeft
  }

  $effect(() => {
    if (open) panes[0]?.querySelector('[data-differs=true]')?.scrollIntoView({ block: 'center' })
  })
</script>

<Dialog.Root {open} onOpenChange={(next) => !next && onedit()}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-ink/40" />
    <Dialog.Content class="conflict-sheet">
      <div>
        <Dialog.Title class="text-xl">Somebody saved {what} meanwhile</Dialog.Title>
        <Dialog.Description class="mt-1 max-w-prose text-quiet">
          Nothing was overwritten. Lines that differ are marked; choose what becomes the next writing.
        </Dialog.Description>
      </div>
      <div class="grid min-h-0 grid-cols-2 grid-rows-[auto_minmax(0,1fr)] border border-contour bg-raised">
        {#each ['Saved meanwhile', 'Yours'] as name, side (name)}
          <h3 class="bg-paper px-3 py-1.5 {side ? 'border-l border-contour' : ''}">{name}</h3>
        {/each}
        {#each sides as side, at (side)}
          <ol
            bind:this={panes[at]}
            class="conflict-pane {at ? 'border-l border-contour' : ''}"
            aria-label={at ? 'Yours' : 'Saved meanwhile'}
            onscroll={() => follow(at)}
          >
            {#each pairs as pair, index (index)}
              <li class={pair.differs ? 'conflict-row' : ''} data-differs={pair.differs}>
                {#if pair.differs && pair[side] !== null}<span
                    class="text-changed"
                    role="img"
                    aria-label="differs"
                    >◆
                  </span>{/if}{pair[side] ?? ''}
              </li>
            {/each}
          </ol>
        {/each}
      </div>
      <div class="flex flex-wrap justify-end gap-3">
        <button class="quiet-button" disabled={busy} onclick={ontake}>Take what was saved</button>
        <button class="quiet-button" disabled={busy} onclick={onedit}>Go on editing mine</button>
        <button class="key-button" disabled={busy} onclick={onkeep}>Keep mine as the next writing</button>
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
