import type { LocationQuery } from 'vue-router'

/** How a value of a view is read from the address and written into it. */
export interface Field<T> {
  /** What is taken where the address has nothing, or nothing that can be read. */
  default: T
  read(text: string): T | undefined
  write(value: T): string
}

export type Schema = Record<string, Field<never> | Field<unknown>>
export type ValuesOf<S> = { [Name in keyof S]: S[Name] extends Field<infer T> ? T : never }

/** Any text. */
export const text = (fallback = ''): Field<string> => ({
  default: fallback,
  read: (value) => value,
  write: (value) => value,
})

/** One of a few names. */
export const oneOf = <const Names extends readonly string[]>(
  names: Names,
  fallback: Names[number] = names[0] as Names[number],
): Field<Names[number]> => ({
  default: fallback,
  read: (value) => names.find((name) => name === value),
  write: (value) => value,
})

/** A whole number within bounds. */
export const whole = (least: number, most: number, fallback = least): Field<number> => ({
  default: fallback,
  read: (value) => {
    const number = Number(value)
    return value.trim() !== '' && Number.isInteger(number) && number >= least && number <= most
      ? number
      : undefined
  },
  write: String,
})

/** A whole number within bounds, or none. */
export const maybeWhole = (least: number, most: number): Field<number | undefined> => ({
  ...(whole(least, most) as unknown as Field<number | undefined>),
  default: undefined,
})

/** Yes or no. */
export const flag = (): Field<boolean> => ({
  default: false,
  read: (value) => (value === 'yes' ? true : undefined),
  write: (value) => (value ? 'yes' : ''),
})

/** A place on the neck: its string and fret. */
export interface PlaceText {
  string: number
  fret: number
}
export const placesText = (places: PlaceText[]) => places.map((p) => `${p.string}:${p.fret}`).join(' ')

/** The places of a text; what is no place is passed over. */
export function readPlaces(value: string): PlaceText[] {
  return value.split(' ').flatMap((one) => {
    const [string, fret] = one.split(':').map(Number)
    const fits = Number.isInteger(string) && Number.isInteger(fret) && one.includes(':')
    return fits && string! >= 1 && string! <= 8 && fret! >= 0 && fret! <= 36
      ? [{ string: string!, fret: fret! }]
      : []
  })
}

/** Some places. */
export const places = (): Field<PlaceText[]> => ({
  default: [],
  read: readPlaces,
  write: placesText,
})

/** One place, or none. */
export const place = (): Field<PlaceText | undefined> => ({
  default: undefined,
  read: (value) => readPlaces(value)[0],
  write: (value) => (value ? placesText([value]) : ''),
})

/** The key that a value of a step has in the address: every step has its own. */
export const keyOf = (step: string, name: string) => (step ? `${step}.${name}` : name)

/** The value that the address holds, or the default. */
export function readField<T>(query: LocationQuery, step: string, name: string, field: Field<T>): T {
  const value = query[keyOf(step, name)]
  if (typeof value !== 'string') return field.default
  return field.read(value) ?? field.default
}

/** The address with some values of a step changed; defaults and nothing are left out. */
export function written(
  query: Record<string, string | undefined>,
  step: string,
  schema: Schema,
  values: Record<string, unknown>,
): Record<string, string | undefined> {
  const next = { ...query }
  for (const [name, value] of Object.entries(values)) {
    const field = schema[name] as Field<unknown> | undefined
    if (!field) continue
    const isDefault = value === undefined || JSON.stringify(value) === JSON.stringify(field.default)
    const content = isDefault ? '' : field.write(value)
    next[keyOf(step, name)] = content || undefined
  }
  return next
}
