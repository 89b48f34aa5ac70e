import { computed, type ComputedRef } from 'vue'
import { useRoute, useRouter, type LocationQueryRaw, type Router } from 'vue-router'
import { readField, written, type Field, type Schema, type ValuesOf } from './query'

/** Changes of the address that are gathered until the end of the present task. */
let pending: Record<string, string | undefined> | undefined
let done: Promise<unknown> = Promise.resolve()

/** The navigation to another page that is under way: its code may still be loading. */
let underWay: { to: string; over: Promise<void>; end: () => void } | undefined

/** Lets changes of the address wait for a navigation that has begun, instead of ending it. */
export function followNavigation(router: Router) {
  router.beforeEach((to, from) => {
    if (to.path === from.path) return
    const overtaken = underWay
    let end = () => {}
    const over = new Promise<void>((resolve) => (end = resolve))
    underWay = { to: to.fullPath, over, end }
    overtaken?.end()
  })
  const end = (to: { fullPath: string }) => {
    if (underWay?.to !== to.fullPath) return
    underWay.end()
    underWay = undefined
  }
  router.afterEach(end)
  // Code that cannot be loaded ends the navigation, too.
  router.onError((_, to) => end(to))
}

/**
 * Changes the address. Changes that are made in one task are made together, so that none
 * takes back another; those made while a step is loading are made once it is there.
 */
export function changeAddress(router: Router, change: Record<string, string | undefined>): Promise<unknown> {
  if (pending) {
    Object.assign(pending, change)
    return done
  }
  pending = { ...change }
  done = Promise.resolve().then(async () => {
    while (underWay) await underWay.over
    const query: LocationQueryRaw = { ...router.currentRoute.value.query, ...pending }
    pending = undefined
    for (const name of Object.keys(query)) if (!query[name]) delete query[name]
    return router.replace({ query })
  })
  return done
}

/** The values of a step that the address holds, by their names and kinds. */
export function useQuery<const S extends Schema>(step: string, schema: S) {
  const route = useRoute()
  const router = useRouter()
  const values = Object.fromEntries(
    Object.entries(schema).map(([name, field]) => [
      name,
      computed(() => readField(route.query, step, name, field as Field<unknown>)),
    ]),
  ) as { [Name in keyof S]: ComputedRef<ValuesOf<S>[Name]> }

  function set(change: Partial<ValuesOf<S>>): Promise<unknown> {
    return changeAddress(router, written({}, step, schema, change))
  }
  return { ...values, set }
}
