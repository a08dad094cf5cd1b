import tailwindcss from '@tailwindcss/vite'
import { buildWorkshop } from './scripts/setup/build-workshop'

// Only '@tailwindcss/vite' is a build plugin; everything below says what is switched off and why.
/** What every place is made of comes in one chunk: a dozen of some hundred bytes each compress worse than one. */
const FRAME = [
  'components/base/(SheetPage|PageNote|MainAction|StationPost|BlankText)',
  'composables/(base/(use-undo|use-keys|use-wording|at-first-sign)|live/use-live)',
  'core/base/(decimal|money|currency|day|unit|typed-number)\\.ts',
  'shared/words/(format|ways)\\.ts',
].map((part) => new RegExp(`/${part}`))
const joinFrame = (id: string) => (FRAME.some((part) => part.test(id)) && !id.includes('?') ? 'frame' : undefined)

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  modules: ['@pinia/nuxt', 'nuxt-security'],
  css: ['~/assets/look.css'],
  telemetry: false,
  devtools: { enabled: false },
  // Own modules are imported by path, so that a reader and a tool can follow them.
  imports: { scan: false },
  components: { dirs: [] },
  typescript: {
    strict: true,
    tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true, noUnusedLocals: true } },
    nodeTsConfig: {
      include: [
        '../scripts/**/*.ts',
        '../demo/**/*.ts',
        '../stand-ins/**/*.ts',
        '../tests/**/*.ts',
        '../core/**/*.test.ts',
        '../server/**/*.d.ts',
        '../*.config.ts',
      ],
    },
  },
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Rekko',
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'color-scheme', content: 'light dark' },
      ],
      // Before everything else: what is pressed while the page comes is not lost.
      script: [{ src: '/early-presses.js' }],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }],
    },
  },
  // Nothing is inlined: the content policy allows fonts from here alone.
  vite: {
    plugins: [tailwindcss()],
    vue: { features: { optionsAPI: false } },
    // Tiny chunks are joined to those that load them anyway: each costs a request and compresses badly.
    build: {
      assetsInlineLimit: 0,
      minify: 'terser',
      terserOptions: { ecma: 2020, module: true, compress: { passes: 3 } },
      rollupOptions: { output: { experimentalMinChunkSize: 1000, manualChunks: joinFrame } },
    },
  },
  nitro: {
    imports: false,
    compressPublicAssets: { gzip: true },
    // The reader of uploads' types ships several entries; the bundler must not mix them.
    externals: { inline: [] },
    hooks: { compiled: (nitro) => buildWorkshop(nitro.options.rootDir, nitro.options.output.serverDir) },
  },
  // A page is fetched when a link to it is pointed at or focused, not because the link is in sight.
  hooks: {
    'build:manifest': (manifest) => {
      for (const chunk of Object.values(manifest)) chunk.prefetch = false
    },
  },
  experimental: {
    defaults: { nuxtLink: { prefetchOn: { visibility: false, interaction: true } } },
    appManifest: false,
    payloadExtraction: false,
    renderJsonPayloads: false,
    navigationRepaint: false,
  },
  security: {
    nonce: true,
    rateLimiter: false, // trusts a forged X-Forwarded-For; sign-in is limited in the database
    xssValidator: false, // refuses honest texts such as "a < b"
    corsHandler: false, // would allow every origin
    requestSizeLimiter: false, // our own limits speak in sentences
    allowedMethodsRestricter: false,
    basicAuth: false,
    sri: true,
    headers: {
      crossOriginEmbedderPolicy: false,
      crossOriginOpenerPolicy: false, // means nothing on plain HTTP, where it only warns
      originAgentCluster: false,
      strictTransportSecurity: false, // set it at the proxy that speaks HTTPS
      referrerPolicy: 'same-origin',
      contentSecurityPolicy: {
        'default-src': ["'self'"],
        'script-src': ["'self'", "'nonce-{{nonce}}'", "'strict-dynamic'"],
        'script-src-attr': ["'none'"],
        'style-src': ["'self'", "'unsafe-inline'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'font-src': ["'self'"],
        'connect-src': ["'self'"],
        'worker-src': ["'self'"],
        'frame-ancestors': ["'none'"],
        'base-uri': ["'none'"],
        'form-action': ["'self'"],
        'object-src': ["'none'"],
        'upgrade-insecure-requests': false,
      },
    },
  },
})
