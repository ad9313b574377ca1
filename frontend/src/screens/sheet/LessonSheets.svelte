<!-- A song's sheet: another one for another song. -->
<script lang="ts">
  import LessonSheetOfSong from './LessonSheetOfSong.svelte'

  let { params = { id: '' } }: { params?: { id: string } } = $props()
</script>

{#key params.id}<LessonSheetOfSong id={Number(params.id)} />{/key}
