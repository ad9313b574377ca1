/** The sign of every measure, drawn in a box of 16 by 16; the legend and the climb use the same. */
export const MEASURE_SIGNS: Record<string, string> = {
  stretch: 'M2 3v10M14 3v10M2 8h12M5 5.5 2.5 8 5 10.5M11 5.5 13.5 8 11 10.5',
  shift: 'M2 12C4 4 10 4 12 10M8.5 9.5 12.3 11 14 7',
  speed: 'M3 3l5 5-5 5M8.5 3l5 5-5 5',
  technique: 'M2 11c2.5 0 3-7 6-7s2 8 6 5',
  shapes: 'M4 12.5v.01M8 4v.01M12 8.5v.01M4 12.5 8 4l4 4.5',
}
