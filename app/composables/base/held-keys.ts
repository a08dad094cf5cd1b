import { isTyping } from './use-keys'

/**
 * A key that is held down presses once: Enter and Space repeat nothing outside a text, and Enter with Ctrl or Cmd
 * repeats nothing anywhere. So nothing is decided, issued or sent that nobody meant; the key has to come up between.
 */
export function refuseHeldKeys(): void {
  window.addEventListener(
    'keydown',
    (event) => {
      const isPress = event.key === 'Enter' || event.key === ' '
      if (!event.repeat || !isPress || (isTyping(event) && !event.ctrlKey && !event.metaKey)) return
      event.preventDefault()
      event.stopImmediatePropagation()
    },
    true,
  )
}
