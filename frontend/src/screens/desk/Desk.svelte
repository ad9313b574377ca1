<script lang="ts">
  import DeskOfSong from './DeskOfSong.svelte'

  let { params }: { params?: { id?: string } } = $props()
</script>

<!-- Another song is another desk: nothing chosen on one carries over. -->
{#key params?.id}
  <DeskOfSong id={Number(params?.id)} />
{/key}
