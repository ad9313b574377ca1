<!-- In which language directions are given, and how chords are called in them. -->
<script lang="ts">
  import type { LessonQuery } from '../api/client'
  import Select from '../ui/Select.svelte'

  type Language = NonNullable<LessonQuery['language']>
  type Names = NonNullable<LessonQuery['names']>
  interface Props {
    language: Language
    names: Names
    onlanguage: (language: Language) => void
    onnames: (names: Names) => void
  }
  let { language, names, onlanguage, onnames }: Props = $props()
</script>

<Select
  label="Language"
  class="w-28"
  value={language}
  options={[
    { value: 'en', words: 'English' },
    { value: 'es', words: 'Español' },
  ]}
  onchange={onlanguage}
/>
<Select
  label="Names of chords"
  class="w-28"
  value={names}
  options={[
    { value: 'letters', words: 'C D E' },
    { value: 'solfege', words: 'do re mi' },
  ]}
  onchange={onnames}
/>
