<!-- What each section is for its player: guessed, or as the teacher says. -->
<script lang="ts">
  import type { Part, Role } from '../api/client'
  import Select from '../ui/Select.svelte'

  let {
    part,
    busy,
    ongive,
  }: { part: Part; busy: boolean; ongive: (firstBar: number, role: Role | null) => void } = $props()
  const GUESSED = 'guessed'
  const ROLES: Role[] = ['strum', 'riff', 'picked', 'line', 'chord melody', 'bass']
  /** Each section once, in the order they are played first. */
  const sections = $derived(
    part.map.filter(
      ({ name, first_bar }, at) =>
        name && part.map.findIndex((other) => other.name && other.first_bar === first_bar) === at,
    ),
  )
</script>

<ul class="space-y-1 text-ink">
  {#each sections as passage (passage.first_bar)}
    <li class="flex items-center justify-between gap-2">
      <span>{passage.name}</span>
      <Select
        label="What {passage.name} is"
        value={passage.role_said ? passage.role! : GUESSED}
        options={[
          {
            value: GUESSED,
            words: passage.role_said ? 'as guessed' : `${passage.role ?? 'silent'} (guessed)`,
          },
          ...ROLES.map((role) => ({ value: role, words: role })),
        ]}
        disabled={busy}
        onchange={(role) => ongive(passage.first_bar, role === GUESSED ? null : (role as Role))}
      />
    </li>
  {/each}
</ul>
