import type { Router } from 'vue-router'
import { Problem } from '../api/client'
import { reportFault } from '../api/fault'
import { saveAll } from '../document/unsaved'

const away =
  'This part of the page could not be loaded: Undaris does not answer. Nothing is lost; go there again once it runs.'
const broken = 'This part of the page could not be loaded. Load the page anew; nothing is lost.'

/**
 * The code of a step is fetched when it is first gone to. Where it cannot be had, because
 * the program is away or another version runs by now, that is said; a browser fetches no
 * module a second time, so once the program answers the page itself is loaded anew there.
 */
export function loadMissingSteps(router: Router, load = (path: string) => location.assign(path)) {
  router.onError(async (_, to, from) => {
    const answers = await fetch('/api/about').then(
      (response) => response.ok,
      () => false,
    )
    // A page that cannot even begin would be loaded for ever.
    if (answers && from.matched.length) {
      await saveAll()
      load(to.fullPath)
    } else reportFault(new Problem(503, answers ? broken : away))
  })
}
