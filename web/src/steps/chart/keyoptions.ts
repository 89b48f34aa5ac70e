import { computed } from 'vue'
import { named } from '../../controls/options'
import { useTune } from '../../document/tune'

/** Every key there is, as options to choose from. */
export function useKeyOptions() {
  const tune = useTune()
  return computed(() =>
    named(
      (tune.choices?.modes ?? []).flatMap((mode) =>
        (tune.choices?.tonics[mode] ?? []).map((tonic) => `${tonic} ${mode}`),
      ),
    ),
  )
}

/** The key of an option. */
export function keyOf(option: string) {
  const [tonic = '', mode = ''] = option.split(' ')
  return { tonic, mode }
}
