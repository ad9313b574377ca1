/**
 * Which rows the reader wants to see under and over the strings: one choice for all screens and for
 * paper.
 */
import { EVERY_LAYER, type Layers } from './spacing'

const KEY = 'clear-steps-layers'

export const layers = $state<Layers>({ ...EVERY_LAYER, counts: false, shapes: false, ...remembered() })

export function setLayer(layer: keyof Layers, on: boolean): void {
  layers[layer] = on
  try {
    localStorage.setItem(KEY, JSON.stringify(layers))
  } catch {
    // A browser that keeps nothing: the choice holds until the page is left.
  }
}

function remembered(): Partial<Layers> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}')
  } catch {
    return {}
  }
}
