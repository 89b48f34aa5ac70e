import { shallowRef } from 'vue'
import type { Choices } from '../api/client'

/** What the classes of notes over a chord are called, as the server says. */
const classes = shallowRef<Choices['classes']>([])

export const nameClasses = (all: Choices['classes']) => (classes.value = all)

/** The name of a class. */
export const className = (id: string) => classes.value.find((c) => c.id === id)?.name ?? id

/** The name of a class where there is little room. */
export const classShort = (id: string) => classes.value.find((c) => c.id === id)?.short ?? id
