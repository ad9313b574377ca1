<script lang="ts">
  import type { EditorView } from '@codemirror/view'
  import { onMount } from 'svelte'
  import type { Problem } from '../api/client'
  import type { goTo, showProblems } from './editor'

  interface Props {
    text: string
    label: string
    problems: Problem[]
    onchange: (text: string) => void
  }
  let { text, label, problems, onchange }: Props = $props()
  let host: HTMLDivElement
  let view = $state.raw<EditorView>()
  let tools = $state.raw<{ goTo: typeof goTo; showProblems: typeof showProblems }>()

  // The editor is loaded when the first text is opened.
  onMount(() => {
    let gone = false
    void import('./editor').then((editor) => {
      if (gone) return
      tools = editor
      view = editor.createEditor(host, text, label, (changed) => onchange(changed))
    })
    return () => {
      gone = true
      view?.destroy()
    }
  })

  // A text set from outside (a dropped file, an older revision) replaces what stands in the editor.
  $effect(() => {
    if (view && view.state.doc.toString() !== text)
      view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } })
  })
  $effect(() => {
    if (view) tools?.showProblems(view, problems)
  })

  export function show(place: Problem['place']): void {
    if (view) tools?.goTo(view, place)
  }
</script>

<div bind:this={host} class="h-full min-h-0 overflow-hidden border border-contour"></div>
