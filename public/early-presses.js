// What is pressed while a page is not yet alive is taken down, and pressed again when it is, once: a key that opens
// something, or a button. Of several the last counts.
;(() => {
  let again = null
  const take = (event, what) => {
    event.preventDefault()
    event.stopPropagation()
    again = what
    document.documentElement.style.cursor = 'progress'
  }
  const key = (event) => {
    const at = event.target
    const typing = at instanceof HTMLElement && (at.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(at.tagName))
    if ((event.key !== '/' && event.key !== 'F1') || event.ctrlKey || event.metaKey || event.altKey || typing) return
    const pressed = event.key
    take(event, () => document.body.dispatchEvent(new KeyboardEvent('keydown', { key: pressed, bubbles: true })))
  }
  const click = (event) => {
    const button = event.target instanceof Element ? event.target.closest('button') : null
    if (button === null) return
    take(event, () => {
      if (button.isConnected && !button.disabled) button.click()
    })
  }
  window.addEventListener('keydown', key, true)
  window.addEventListener('click', click, true)
  window.rekkoPressEarly = () => {
    window.removeEventListener('keydown', key, true)
    window.removeEventListener('click', click, true)
    document.documentElement.style.cursor = ''
    again?.()
    again = null
  }
})()
