<script setup lang="ts">
import { passwordShape } from '#core/people/password'
import { sayPasswordReason } from '#shared/words/password'

/** A box for a new password, which may be shown, with what it lacks. */
defineProps<{ id: string; label: string }>()
const typed = defineModel<string>({ required: true })
const seen = ref(false)
const says = computed(() => {
  const [reason] = typed.value === '' ? [] : passwordShape(typed.value, null)
  return reason === undefined ? 'At least 15 characters; a few words you like will do.' : sayPasswordReason(reason)
})
</script>

<template>
  <div>
    <label class="label" :for="id">{{ label }}</label>
    <span class="flex items-center gap-3">
      <input
        :id="id"
        v-model="typed"
        class="field"
        :type="seen ? 'text' : 'password'"
        autocomplete="new-password"
        :aria-describedby="`${id}-says`"
        required
      />
      <button type="button" class="quiet-link shrink-0" @click="seen = !seen">{{ seen ? 'hide' : 'show' }}</button>
    </span>
    <p :id="`${id}-says`" class="small mt-1">{{ says }}</p>
  </div>
</template>
