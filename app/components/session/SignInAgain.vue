<script setup lang="ts">
import type { Me } from '#shared/contract/session'
import { useSessionStore } from '~/stores/session'
import DialogSheet from '~/components/base/DialogSheet.vue'
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
  <!-- There is nothing to go back to before signing in, so that it does not close. -->
  <DialogSheet title="You were signed out after a while." :width="420">
    <p class="mb-4 mt-1 text-ink2">Sign in again here; what you typed is kept, and you go on where you were.</p>
    <SignInForm @done="done" />
  </DialogSheet>
</template>
