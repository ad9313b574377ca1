/** The ladder under the pen: what was fetched, what is changed, and what it would do. */
import { api, type Ladder, type LadderPreview, type LadderScreen, type Rung } from '../../api/client'

const DEBOUNCE_MS = 250
export const TECHNIQUES = 'technique'
export const SHAPES = 'shapes'

export class LadderState {
  screen = $state.raw<LadderScreen | null>(null)
  ladder = $state<Ladder | null>(null)
  measure = $state('stretch')
  step = $state(4)
  preview = $state.raw<LadderPreview | null>(null)
  message = $state('')
  #timer: ReturnType<typeof setTimeout> | undefined

  readonly changed = $derived(
    this.screen !== null && JSON.stringify(this.ladder) !== JSON.stringify(this.screen.ladder),
  )
  readonly rungs: Rung[] = $derived(this.preview?.rungs ?? this.screen?.rungs ?? [])
  readonly rung = $derived(this.rungs.find((rung) => rung.step === this.step))

  take(screen: LadderScreen): void {
    this.screen = screen
    this.ladder = structuredClone(screen.ladder)
    this.ask()
  }

  /** Somebody else saved first; this goes on from theirs, with what is typed here. */
  goOnFrom(screen: LadderScreen): void {
    this.screen = screen
    this.ask()
  }

  /** Ask, a moment after the last change, what the ladder would do. */
  ask(): void {
    clearTimeout(this.#timer)
    this.#timer = setTimeout(() => void this.#try(), DEBOUNCE_MS)
  }

  stop(): void {
    clearTimeout(this.#timer)
  }

  async #try(): Promise<void> {
    try {
      this.preview = await api.tryLadder($state.snapshot(this.ladder) as Ladder)
      this.message = ''
    } catch (error) {
      this.message = error instanceof Error ? error.message : String(error)
    }
  }
}

/** A ladder in words, a row a line. */
export function ladderLines(ladder: Ladder): string {
  const named = ([name, step]: [string, unknown]): string => `${name.replaceAll('_', ' ')}: ${step}`
  return [
    `name: ${ladder.name}`,
    ...ladder.curves.map((curve) =>
      named([curve.curve, curve.points.map((point) => point.join(' is ')).join(', ')]),
    ),
    ...ladder.techniques.map((row) => named([row.technique, row.step])),
    ...(ladder.modifiers ?? []).map((row) => named([row.modifier, row.adds])),
    ...Object.entries(ladder.shapes)
      .filter(([name]) => name !== 'source')
      .map(named),
    ...(ladder.own_techniques ?? []).map((row) => named([row.name, row.step])),
    `still the tune from: ${ladder.tune_floor} %`,
  ].join('\n')
}
