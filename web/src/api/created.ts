/** The parameters of a request that keeps a new document: asked for again with the same uid, it keeps no second one. */
export const createdAs = (uid: string) => ({ header: { 'Idempotency-Key': uid } })
