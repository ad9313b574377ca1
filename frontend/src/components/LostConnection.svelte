<script lang="ts">
  import { connection } from '../api/connection.svelte'
</script>

{#if connection.lost}
  <p class="lost-connection print:hidden" role="status">
    The server does not answer. What you type is kept here; it is asked again every second.
  </p>
{/if}
