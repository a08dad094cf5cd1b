<script setup lang="ts">
/** The code of a second factor: six digits of an application, or a recovery code. */
const { id, takesFocus = false } = defineProps<{ id: string; takesFocus?: boolean }>()
const code = defineModel<string>({ required: true })

// However late it comes, one writes in it: only what stands here itself knows when it is there.
onMounted(() => {
  if (takesFocus) document.getElementById(id)?.focus()
})
</script>

<template>
  <div>
    <label class="label" :for="id">The code of now</label
    ><input
      :id="id"
      v-model="code"
      class="field tabular-nums"
      inputmode="text"
      autocomplete="one-time-code"
      autocapitalize="none"
      spellcheck="false"
      :aria-describedby="`${id}-says`"
    />
    <p :id="`${id}-says`" class="small mt-1.5">
      Six digits from your application for codes; where that is lost, one of your recovery codes.
    </p>
  </div>
</template>
