/** CodeMirror set up for tab text: no wrapping, problems at their line, the same font as print. */
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { setDiagnostics, type Diagnostic } from '@codemirror/lint'
import { EditorState } from '@codemirror/state'
import { drawSelection, EditorView, keymap, lineNumbers, placeholder } from '@codemirror/view'
import type { Problem } from '../api/client'

const look = EditorView.theme({
  '&': { height: '100%', fontSize: '14px', backgroundColor: 'var(--raised)', color: 'var(--ink)' },
  '.cm-content': { fontFamily: 'var(--mono)', caretColor: 'var(--ink)' },
  '.cm-gutters': {
    backgroundColor: 'var(--raised)',
    color: 'var(--quiet)',
    border: 'none',
    fontFamily: 'var(--mono)',
    fontSize: '11px',
  },
  '.cm-placeholder': { color: 'var(--quiet)' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)', borderLeftWidth: '2px' },
  '&.cm-focused': { outline: '2.5px solid var(--focus)', outlineOffset: '-2px' },
  '.cm-tooltip': { backgroundColor: 'var(--paper)', color: 'var(--ink)', border: '1px solid var(--contour)' },
})

export function createEditor(
  parent: HTMLElement,
  text: string,
  label: string,
  onChange: (text: string) => void,
): EditorView {
  const nonce = document.querySelector<HTMLMetaElement>('meta[name=style-nonce]')?.content ?? ''
  return new EditorView({
    parent,
    state: EditorState.create({
      doc: text,
      extensions: [
        EditorView.cspNonce.of(nonce),
        lineNumbers(),
        history(),
        drawSelection(),
        placeholder('Paste a tab here: string lines such as  e|--0--2--3--|'),
        keymap.of([...defaultKeymap, ...historyKeymap]),
        EditorView.contentAttributes.of({
          'aria-label': label,
          spellcheck: 'false',
          autocapitalize: 'off',
          tabindex: '0',
        }),
        look,
        EditorView.updateListener.of((update) => update.docChanged && onChange(update.state.doc.toString())),
      ],
    }),
  })
}

export function showProblems(view: EditorView, problems: Problem[]): void {
  const doc = view.state.doc
  const diagnostics: Diagnostic[] = problems.map(({ place, message }) => {
    const line = doc.line(Math.min(Math.max(place.line, 1), doc.lines))
    const from = Math.min(line.from + place.column - 1, line.to)
    return { from, to: Math.min(from + 1, line.to), severity: 'error', message }
  })
  view.dispatch(setDiagnostics(view.state, diagnostics))
}

/** Put the cursor at a place and show it. */
export function goTo(view: EditorView, place: Problem['place']): void {
  const line = view.state.doc.line(Math.min(Math.max(place.line, 1), view.state.doc.lines))
  const at = Math.min(line.from + place.column - 1, line.to)
  view.dispatch({ selection: { anchor: at }, scrollIntoView: true })
  view.focus()
}
