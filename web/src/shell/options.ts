/** The members of a list of names as options of a list to choose from. */
export const named = (all: string[] | undefined) => (all ?? []).map((name) => ({ value: name, text: name }))
