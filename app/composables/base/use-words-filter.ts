/** The words a list is filtered by: what is typed goes into the address after a moment, and comes back from it. */
export function useWordsFilter() {
  const route = useRoute()
  const router = useRouter()
  const words = computed(() => (typeof route.query.words === 'string' ? route.query.words : ''))
  const typed = ref(words.value)
  let timer: ReturnType<typeof setTimeout> | undefined
  watch(typed, (text) => {
    clearTimeout(timer)
    timer = setTimeout(() => {
      void router.replace({ query: { ...route.query, words: text === '' ? undefined : text } })
    }, 250)
  })
  watch(words, (text) => {
    if (text.trim() !== typed.value.trim()) typed.value = text
  })
  return { words, typed }
}
