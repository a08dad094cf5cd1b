// Keys that open something are taken down while a page is not yet alive, and pressed again when it is.
window.rekkoEarlyKey = null
window.rekkoTakeEarly = (event) => {
  const at = event.target
  const typing = at instanceof HTMLElement && (at.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(at.tagName))
  if ((event.key !== '/' && event.key !== 'F1') || event.ctrlKey || event.metaKey || event.altKey || typing) return
  event.preventDefault()
  window.rekkoEarlyKey = event.key
}
window.addEventListener('keydown', window.rekkoTakeEarly)
