/**
 * Which view every key belongs to. A key of `everywhere` means the same in every step of a
 * tune, so no step may have it for itself; keytable.test.ts holds this and that nothing is
 * bound that does not stand here.
 */
export const keyTable = {
  everywhere: [
    ...[
      '?',
      'F1',
      'F4',
      'g',
      'n',
      'i',
      ' ',
      'ArrowLeft',
      'ArrowRight',
      '[',
      ']',
      'Mod+z',
      'Mod+Shift+z',
      '+',
      '-',
    ],
    ...['z', 'Home', 'End', 'Shift+ArrowLeft', 'Shift+ArrowRight'],
    ...['Shift+1', 'Shift+2', 'Shift+3', 'Shift+4', 'Shift+5', '1', '2', '3', '4', '5', '6', '7', '8', '9'],
  ],
  chart: ['t'],
  map: ['b', 'o', 'h', 'l', 'f', 'p'],
  change: ['ArrowUp', 'ArrowDown', ',', '.', 'w', 'u', 'a', 's'],
  licks: ['ArrowUp', 'ArrowDown', 't', 'a', 's', 'k', 'e', 'v', 'r', 'm', 'w', 'j', 'c', 'q', 'f'],
  solo: [
    ...['p', ',', '.', 'x', 'm', 'r', 'y', 'o', 'Delete', 'e', 'f', 'd', 'h', '>', '<'],
    ...['v', 'w', 'a', 'c', 'k', 'j'],
  ],
  play: ['h', 'l', '.', 'w', 'PageUp', 'PageDown', 'ArrowUp', 'ArrowDown', 'Enter'],
  takes: ['r', 'w', ',', '.', 'h', 'k', 'd', 'p', 'x'],
  exercise: ['a', 'c', 'k', 'f', 'ArrowUp', 'ArrowDown'],
  /** Practice is no step of a tune: space goes on there, and nothing plays. */
  practice: ['h', 's', 'u', 'r', 'p', 'c', 'x', ' '],
} as const satisfies Record<string, string[]>
