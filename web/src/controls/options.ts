/** The members of a list of names as options of a list to choose from. */
export const named = <Name extends string>(all: readonly Name[] | undefined) =>
  (all ?? []).map((name) => ({ value: name, text: name }))
