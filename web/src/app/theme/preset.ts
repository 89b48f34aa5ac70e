import { definePreset } from '@primeuix/themes'
// Of the library's look what its components in use need: all of it is ten times as much.
import base from '@primeuix/themes/aura/base'
import button from '@primeuix/themes/aura/button'
import dialog from '@primeuix/themes/aura/dialog'
import inputnumber from '@primeuix/themes/aura/inputnumber'
import inputtext from '@primeuix/themes/aura/inputtext'
import ripple from '@primeuix/themes/aura/ripple'
import select from '@primeuix/themes/aura/select'
import slider from '@primeuix/themes/aura/slider'
import virtualscroller from '@primeuix/themes/aura/virtualscroller'

/**
 * The two looks of Undaris as one PrimeVue preset: warm paper and ink by day, a
 * dim stage by night. The library's components and our own drawing read the
 * same tokens; ours become `--p-undaris-…`. Every text token meets WCAG AA on
 * paper, card and shade; nextFill carries text of the card's colour.
 */
const day = {
  paper: '#F5F0E6',
  card: '#FBF8F1',
  shade: '#EBE3D4',
  line: '#D8CDBB',
  string: '#A89A86',
  ink: '#27231F',
  stone: '#635B50',
  now: '#17695C',
  nowTint: '#DDEBE4',
  next: '#95520A',
  nextFill: '#A85C0C',
  nextTint: '#F6E5D0',
  onFill: '#FBF8F1',
  lit: '#F2C230',
}

const night: typeof day = {
  paper: '#211C18',
  card: '#2A2420',
  shade: '#191512',
  line: '#4A4037',
  string: '#766857',
  ink: '#EBE0CD',
  stone: '#B5A892',
  now: '#7CC7B6',
  nowTint: '#233A34',
  next: '#E5AC63',
  nextFill: '#E0A458',
  nextTint: '#42321F',
  onFill: '#211C18',
  lit: '#F2C230',
}

const green = {
  50: '#EEF6F2',
  100: '#DDEBE4',
  200: '#B9D8CC',
  300: '#8DC0B0',
  400: '#55998A',
  500: '#17695C',
  600: '#145D52',
  700: '#115046',
  800: '#0D3F37',
  900: '#0A302A',
  950: '#061F1B',
}

function scheme(c: typeof day) {
  return {
    undaris: c,
    primary: { color: c.now, contrastColor: c.onFill, hoverColor: c.now, activeColor: c.now },
    highlight: { background: c.nowTint, focusBackground: c.nowTint, color: c.now, focusColor: c.now },
    text: { color: c.ink, hoverColor: c.ink, mutedColor: c.stone, hoverMutedColor: c.ink },
    content: {
      background: c.card,
      hoverBackground: c.shade,
      borderColor: c.line,
      color: c.ink,
      hoverColor: c.ink,
    },
    formField: {
      background: c.card,
      borderColor: c.line,
      hoverBorderColor: c.stone,
      focusBorderColor: c.now,
      color: c.ink,
      placeholderColor: c.stone,
      iconColor: c.stone,
      shadow: 'none',
    },
    overlay: {
      select: { background: c.card, borderColor: c.line, color: c.ink },
      popover: { background: c.card, borderColor: c.line, color: c.ink },
      modal: { background: c.card, borderColor: c.line, color: c.ink },
    },
    list: {
      option: {
        focusBackground: c.shade,
        selectedBackground: c.nowTint,
        selectedFocusBackground: c.nowTint,
        color: c.ink,
        focusColor: c.ink,
        selectedColor: c.now,
        selectedFocusColor: c.now,
      },
    },
  }
}

export const preset = definePreset(
  {
    ...base,
    components: { button, dialog, inputnumber, inputtext, ripple, select, slider, virtualscroller },
  },
  {
    semantic: {
      primary: green,
      focusRing: { width: '2px', style: 'solid', color: '{primary.color}', offset: '2px' },
      colorScheme: { light: scheme(day), dark: scheme(night) },
    },
  },
)
