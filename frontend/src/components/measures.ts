/** The sign of every measure, drawn in a box of 16 by 16; the legend and the climb use the same. */
export const MEASURE_SIGNS: Record<string, string> = {
  stretch: 'M2 3v10M14 3v10M2 8h12M5 5.5 2.5 8 5 10.5M11 5.5 13.5 8 11 10.5',
  shift: 'M2 12C4 4 10 4 12 10M8.5 9.5 12.3 11 14 7',
  speed: 'M3 3l5 5-5 5M8.5 3l5 5-5 5',
  technique: 'M2 11c2.5 0 3-7 6-7s2 8 6 5',
  picking: 'M2 3h12M2 8h12M2 13h12M5 3l5 10M7.5 12.5 10 13l.6-2.6',
  damping: 'M2 8h4M10 8h4M6 4v8M10 4v8',
  rhythm: 'M3 13V4M7 13V8M10 13V3M13 13V9',
  independence: 'M2 12c3 0 3-8 6-8s3 8 6 8M2 5h4M10 5h4',
  shapes: 'M4 12.5v.01M8 4v.01M12 8.5v.01M4 12.5 8 4l4 4.5',
}
