<script setup lang="ts">
/** Where files are attached: they may be dropped anywhere on the page, or chosen. */
const emit = defineEmits<{ add: [files: File[]] }>()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
function choose(event: Event): void {
  const box = event.target as HTMLInputElement
  emit('add', [...(box.files ?? [])])
  box.value = ''
}
</script>

<template>
  <p class="flex flex-wrap items-center gap-2">
    <button id="attach" type="button" class="action min-h-[32px]!" @click="chooser?.click()">
      Attach a quote or another file
    </button>
    <input
      ref="chooser"
      type="file"
      class="sr-only"
      tabindex="-1"
      aria-label="Attach files"
      accept="application/pdf,image/png,image/jpeg"
      multiple
      @change="choose"
    />
    <span class="small max-[900px]:hidden">or drop files anywhere on this page</span>
  </p>
</template>
