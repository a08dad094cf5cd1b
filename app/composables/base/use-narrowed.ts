/** What a list is narrowed by stands in the address: one part of it, and a change of some. */
export function useNarrowed() {
  const route = useRoute()
  const router = useRouter()
  const one = (key: string): string => (typeof route.query[key] === 'string' ? route.query[key] : '')
  const narrow = (change: Readonly<Record<string, string>>) =>
    router.replace({
      query: Object.fromEntries(Object.entries({ ...route.query, ...change }).filter(([, v]) => v !== '')),
    })
  return { one, narrow }
}
