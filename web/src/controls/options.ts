interface NamedOption<Name extends string> {
  value: Name
  text: Name
}
const made = new WeakMap<readonly string[], NamedOption<string>[]>()
const none: NamedOption<never>[] = []

/** The members of a list of names as options of a list to choose from; of one list always the same ones. */
export function named<Name extends string>(all: readonly Name[] | undefined): NamedOption<Name>[] {
  if (!all) return none
  const known = made.get(all) as NamedOption<Name>[] | undefined
  const options = known ?? all.map((name) => ({ value: name, text: name }))
  if (!known) made.set(all, options)
  return options
}
