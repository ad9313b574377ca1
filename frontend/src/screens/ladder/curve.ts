/** A curve as a picture: raw value to the right, Step upwards. */
export interface CurvePicture {
  path: string
  dots: { x: number; y: number }[]
  ticks: { x: number; label: string }[]
}

export function curvePicture(
  points: [number, number][],
  width: number,
  height: number,
  highest: number,
): CurvePicture {
  const widest = Math.max(...points.map(([raw]) => raw), 1e-6) * 1.05
  const place = ([raw, step]: [number, number]): { x: number; y: number } => ({
    x: (raw / widest) * width,
    y: height * (1 - step / highest),
  })
  const dots = points.map(place)
  return {
    path: `M0 ${height}${dots.map(({ x, y }) => `L${x.toFixed(1)} ${y.toFixed(1)}`).join('')}`,
    dots,
    ticks: points.map(([raw], at) => ({ x: dots[at].x, label: String(Number(raw.toFixed(2))) })),
  }
}
