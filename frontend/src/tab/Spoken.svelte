<!-- The notes of a system for those who hear the page: part by part, bar by bar, moment by moment. -->
<script lang="ts">
  import type { Part } from '../api/client'
  import { stepText } from '../components/steps'
  import type { SystemBars } from './systems'

  let { parts, names, system }: { parts: Part[]; names: string[]; system: SystemBars } = $props()
  const columns = $derived(
    Array.from({ length: system.last - system.first + 1 }, (_, at) => system.first + at),
  )
</script>

<div class="sr-only">
  {#each parts as part, at (at)}
    <ol aria-label={names[at]}>
      {#each columns as column (column)}
        {@const bar = part.bars[column]}
        <li>
          Bar {bar.number}, Step {stepText(bar.step)}:
          {#each bar.events as event, number (number)}
            {event.count}
            {event.chord || event.recognised}
            {event.change?.words ?? ''}
            {event.notes.length > 0 ? event.notes.map((note) => note.words).join(' with ') : 'rest'};
          {/each}
        </li>
      {/each}
    </ol>
  {/each}
</div>
