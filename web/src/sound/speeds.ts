/** The speeds a phrase can be heard at, in percent of the tempo. */
export const speeds = [25, 40, 50, 60, 70, 80, 90, 100, 110, 120].map((percent) => ({
  value: String(percent),
  text: `${percent} %`,
}))
