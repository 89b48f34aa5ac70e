import { browserDrafts } from './drafts'

/** The drafts of this browser. */
export const drafts = browserDrafts()
