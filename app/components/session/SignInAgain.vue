<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import type { Me } from '#shared/contract/session'
import { useSessionStore } from '~/stores/session'
import SignInForm from './SignInForm.vue'

/** An expired sign-in is renewed in place: the page stays as it is, and nothing typed is lost. */
const session = useSessionStore()
function done(me: Me): void {
  const same = session.me === null || session.me.id === me.id
  session.me = me
  session.expired = false
  if (!same) window.location.assign('/')
}
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="() => undefined">
    <div class="fixed inset-0 bg-ground/80" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-y-auto p-6 pt-24">
      <DialogPanel class="w-full max-w-[420px] rounded border border-ink bg-sheet p-6">
        <DialogTitle class="sentence">You were signed out after a while.</DialogTitle>
        <p class="mb-4 mt-1 text-ink2">Sign in again here; what you typed is kept, and you go on where you were.</p>
        <SignInForm @done="done" />
      </DialogPanel>
    </div>
  </Dialog>
</template>
