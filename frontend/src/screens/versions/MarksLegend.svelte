<!-- The marks that stand on a version and its original, in words. -->
<script lang="ts">
  const SIZE = 11
</script>

<ul class="mb-2 flex flex-wrap gap-x-4 text-[13px] text-quiet" aria-label="What the marks mean">
  <li class="inline-flex items-center gap-1.5">
    <svg width={SIZE} height={SIZE} aria-hidden="true"
      ><path d="M5.5 0l5.5 5.5-5.5 5.5-5.5-5.5z" fill="var(--changed)" /></svg
    >
    other than in the original
  </li>
  <li class="inline-flex items-center gap-1.5">
    <svg width={SIZE} height={SIZE} aria-hidden="true"
      ><path d="M1 1l9 9M10 1l-9 9" stroke="var(--changed)" stroke-width="1.8" /></svg
    >
    not struck any more
  </li>
  <li class="inline-flex items-center gap-1.5">
    <svg width={2 * SIZE} height={SIZE} aria-hidden="true"
      ><path d="M0 6h22" stroke="var(--ink)" stroke-width="1.3" stroke-dasharray="4 3" /></svg
    >
    the original's climb
  </li>
  <li class="inline-flex items-center gap-1.5">
    <svg width={2 * SIZE} height={SIZE} aria-hidden="true"
      ><path d="M0 6h22" stroke="var(--changed)" stroke-width="1.5" /></svg
    >
    the target it was written for; broken: the one asked for now
  </li>
</ul>
