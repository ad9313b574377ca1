<!-- Marks as SVG, each kind in its own look. -->
<script lang="ts">
  import type { Mark } from './marks'

  let { marks }: { marks: Mark[] } = $props()
</script>

{#each marks as mark, index (index)}
  {#if 'd' in mark}
    <path class={mark.kind} d={mark.d} data-mark={mark.name} />
  {:else}
    <text class={mark.kind} x={mark.x} y={mark.y} text-anchor={mark.anchor} data-mark={mark.name}
      >{mark.text}</text
    >
  {/if}
{/each}

<style>
  .line,
  .bold,
  .thin,
  .string {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.25;
  }
  .bold {
    stroke-width: 2.4;
  }
  .changed {
    fill: var(--changed);
  }
  .gone {
    fill: none;
    stroke: var(--changed);
    stroke-width: 1.8;
  }
  .thin {
    stroke-width: 0.8;
  }
  .string {
    stroke: var(--staff);
    stroke-width: 1;
  }
  .fill {
    fill: var(--ink);
  }
  .open {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1.7;
  }
  text {
    fill: var(--ink);
    font-size: 12.5px;
  }
  /* What stands on a line keeps the line away from itself. */
  .fret,
  .small,
  .letter,
  .figure {
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
  .fret,
  .small {
    font-family: var(--mono);
    font-size: 13.5px;
    font-weight: 560;
  }
  .small {
    font-size: 10.5px;
  }
  .letter {
    font-size: 11px;
    stroke-width: 2.5px;
  }
  .figure {
    font-size: 12px;
    font-weight: 600;
    stroke-width: 3px;
  }
  .shape-name {
    font-size: 12px;
    font-weight: 700;
  }
  .finger-in,
  .finger-out {
    font-size: 8.5px;
    font-weight: 700;
  }
  .finger-in {
    fill: var(--paper);
  }
  .chord {
    font-size: 14px;
    font-weight: 700;
  }
  .metre {
    font-size: 19px;
    font-weight: 750;
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 3px;
  }
  .section {
    font-size: 14.5px;
    font-weight: 700;
  }
  .remark {
    fill: var(--quiet);
    font-style: italic;
  }
  .words,
  .quiet {
    fill: var(--quiet);
  }
  .quiet {
    font-family: var(--mono);
    font-size: 12px;
  }
  .row,
  .pinned {
    fill: var(--quiet);
    font-family: var(--mono);
    font-size: 12px;
  }
  .pinned {
    fill: var(--ink);
    font-weight: 700;
  }
</style>
