<script setup lang="ts">
/** A blank of a sentence that is filled by writing: editable text that wraps with the sentence, plain text only. */
const props = defineProps<{ modelValue: string; label: string; placeholder: string; most: number; id?: string }>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()
const box = useTemplateRef<HTMLElement>('box')
// What is written lives in the element: drawing it anew at every key would move the caret.
const initial = props.modelValue

function read(): void {
  const text = (box.value?.textContent ?? '').replace(/\s+/g, ' ').slice(0, props.most)
  emit('update:modelValue', text)
}
function paste(event: ClipboardEvent): void {
  event.preventDefault()
  const text = (event.clipboardData?.getData('text/plain') ?? '').replace(/\s+/g, ' ').slice(0, props.most)
  document.execCommand('insertText', false, text)
}
function show(): void {
  if (box.value !== null && box.value.textContent !== props.modelValue) box.value.textContent = props.modelValue
}
// Whoever is writing in it sees what became of it when they leave.
watch(
  () => props.modelValue,
  () => {
    if (document.activeElement !== box.value) show()
  },
)
onMounted(show)
</script>

<template>
  <span
    :id="id"
    ref="box"
    class="blank blank-text"
    role="textbox"
    aria-multiline="false"
    :aria-label="label"
    contenteditable="plaintext-only"
    tabindex="0"
    spellcheck="true"
    :data-empty="modelValue === ''"
    :data-placeholder="placeholder"
    @input="read"
    @paste="paste"
    @blur="show"
    @keydown.enter.exact.prevent
    >{{ initial }}</span
  >
</template>
