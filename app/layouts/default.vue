<script setup lang="ts">
import AppHeader from '~/components/session/AppHeader.vue'
import UndoBar from '~/components/base/UndoBar.vue'
import { useSessionStore } from '~/stores/session'
import { placeOf } from '~/composables/decide/kept-decisions'
import { slashFinds, useKeysStore } from '~/composables/base/use-keys'
import { useLive } from '~/composables/live/use-live'

// Dialogs come when they are needed: most pages never show one.
const KeysDialog = defineAsyncComponent(() => import('~/components/base/KeysDialog.vue'))
const FindDialog = defineAsyncComponent(() => import('~/components/find/FindDialog.vue'))
const SignInAgain = defineAsyncComponent(() => import('~/components/session/SignInAgain.vue'))

const session = useSessionStore()
const keys = useKeysStore()
useHead({ htmlAttrs: { 'data-theme': () => session.me?.theme } })
const finding = ref(false)
function slash(event: KeyboardEvent): void {
  if (event.key !== '/' || event.ctrlKey || event.metaKey || !slashFinds(event) || event.defaultPrevented) return
  event.preventDefault()
  finding.value = true
}
const nuxt = useNuxtApp()
/** Decisions that were made and could not be sent go on from whichever page is opened. */
function sendKept(personId: string): void {
  if (localStorage.getItem(placeOf(personId)) === null) return
  void import('~/stores/decisions').then(({ useDecisionsStore }) =>
    nuxt.runWithContext(() => {
      useDecisionsStore().resume(personId)
    }),
  )
}
onMounted(() => {
  window.addEventListener('keydown', slash)
  watch(
    () => session.me?.id,
    (id) => id !== undefined && sendKept(id),
    { immediate: true },
  )
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', slash)
})
// What waits at each station follows what happens elsewhere, on every page.
useLive(() => undefined)
</script>

<template>
  <div>
    <a
      href="#page"
      :class="[
        'sr-only focus:not-sr-only focus:absolute focus:left-4 focus:top-2 focus:z-50 focus:bg-sheet',
        'focus:px-3 focus:py-1',
      ]"
      >To the page</a
    >
    <AppHeader v-if="session.me" :me="session.me" @find="finding = true" />
    <div class="mx-auto max-w-[1680px] px-5 pb-5 max-[900px]:px-0 max-[900px]:pb-0"><slot /></div>
    <KeysDialog v-if="keys.open" />
    <FindDialog v-if="finding" @close="finding = false" />
    <UndoBar />
    <SignInAgain v-if="session.expired" />
  </div>
</template>
