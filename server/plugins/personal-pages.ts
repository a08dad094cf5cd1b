/** Every page is drawn for whoever is signed in: nothing between them and Rekko keeps a copy. */
export default function personalPages(nitro: {
  hooks: { hook: (name: 'render:response', run: (response: { headers?: Record<string, unknown> }) => void) => void }
}): void {
  nitro.hooks.hook('render:response', (response) => {
    response.headers = { ...response.headers, 'cache-control': 'private, no-store' }
  })
}
