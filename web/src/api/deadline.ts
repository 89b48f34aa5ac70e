/** How long a request may take, in ms: what computes or saves is quick, what hears, plans or carries whole files is not. */
const usual = 20_000
const computes = 130_000
const carries = 30 * 60_000

const long = [
  { paths: /^\/api\/(recordings\/[^/]+\/(take|punch|leak)|bundles?(\/|$)|backups(\/|$))/, ms: carries },
  { paths: /^\/api\/compute\/(solo|take|band\/midi)/, ms: computes },
]

/** The deadline of a request by its path. */
export const deadlineOf = (path: string): number => long.find(({ paths }) => paths.test(path))?.ms ?? usual

/**
 * Fetches something, and gives up where no answer comes in time: a phone that changes its network would wait for ever. Who
 * asked meets a fault of the network then, and asks again.
 */
export async function fetchInTime(request: Request): Promise<Response> {
  const timeout = AbortSignal.timeout(deadlineOf(new URL(request.url).pathname))
  return fetch(request, { signal: AbortSignal.any([request.signal, timeout]) })
}
