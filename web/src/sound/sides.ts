/** The side of a stereo input that is heard: both, mixed, or one. */
export type Side = 0 | 1 | 2

/** How loud both sides were, and how alike: sums over their samples. */
export interface SideSums {
  loud: [number, number]
  alike: number
}

/** How much of a side must be there to be compared, as a sum of squares a second. */
const audible = 1e-3
/** How unlike both sides are where the one is the other turned over; how much softer a side is that has nothing. */
const turnedOver = -0.6
const nothing = 0.01

/**
 * Watches the two sides of an input, and says what is wrong where both are heard: that they cancel each other, or that
 * one has nothing, which makes the other half as loud.
 */
export class SideWatch {
  private loud: [number, number] = [0, 0]
  private alike = 0
  private samples = 0

  constructor(private readonly rate: number) {}

  /** Takes a piece in; what is wrong by now, or nothing. */
  add({ loud, alike }: SideSums, samples: number): string {
    this.loud[0] += loud[0]
    this.loud[1] += loud[1]
    this.alike += alike
    this.samples += samples
    const least = audible * (this.samples / this.rate)
    const [one, other] = this.loud
    const loudest = Math.max(one, other)
    if (this.samples < this.rate || loudest < least) return ''
    if (this.alike < turnedOver * Math.sqrt(one * other) && Math.min(one, other) > nothing * loudest)
      return 'The two sides of this input cancel each other (one is turned over). Choose one side'
    if (Math.min(one, other) < nothing * loudest)
      return `Only the ${one > other ? 'left' : 'right'} side of this input has sound, which makes it half as loud. Choose that side`
    return ''
  }
}
