<!-- The first line of every sheet. -->
<script lang="ts">
  let { title, under, right = '' }: { title: string; under: string; right?: string } = $props()
</script>

<div class="flex items-baseline gap-3 border-b border-ink pb-1">
  <h1 class="text-xl">{title}</h1>
  <span>{under}</span>
  <span class="grow"></span>
  <span class="font-bold whitespace-nowrap">{right}</span>
</div>
