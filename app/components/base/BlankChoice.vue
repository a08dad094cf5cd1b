<script lang="ts">
const loadList = () => import('./ChoiceListbox.vue')
</script>

<script setup lang="ts" generic="T extends { id: string; name: string; note?: string }">
import { useAtFirstSign } from '~/composables/base/at-first-sign'
import { passMainKey } from '~/composables/base/use-keys'

/** A blank of a sentence that is filled by choosing: runs with the text, opens its picker under it. */
const props = defineProps<{
  modelValue: string | null
  choices: readonly T[]
  label: string
  placeholder: string
  compact?: boolean
  light?: boolean
  id?: string | undefined
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()
const root = useTemplateRef<HTMLElement>('root')
const chosen = computed(() => props.choices.find((c) => c.id === props.modelValue) ?? null)
const shown = computed(() => chosen.value?.name ?? props.placeholder)
const looks = computed(() =>
  props.compact ? 'cell inline-block w-auto! cursor-pointer' : props.light ? 'blank font-[440]!' : 'blank',
)

const { component: list, fetch: fetchList } = useAtFirstSign(loadList)
/** Until the list is there, and while it is being pressed, a button stands for it. */
const held = ref(false)
const plain = useTemplateRef<HTMLElement>('plain')
const button = () => root.value?.querySelector<HTMLElement>('[role="button"]')
watch(
  () => list.value !== null && !held.value,
  async () => {
    const hadFocus = document.activeElement === plain.value
    await nextTick()
    if (hadFocus) button()?.focus()
  },
)
function release(): void {
  // After the click that belongs to it.
  setTimeout(() => {
    held.value = false
  })
}
function hold(): void {
  held.value = true
  for (const end of ['pointerup', 'pointercancel']) window.addEventListener(end, release, { once: true })
}

/** The keys pressed on the button before the list was there: it takes them up in their order. */
let begun: KeyboardEvent[] | null = null
async function open(by: KeyboardEvent | null): Promise<void> {
  if (begun !== null) return
  const keys = (begun = by === null ? [] : [by])
  held.value = false
  plain.value?.focus()
  try {
    await fetchList()
    await nextTick()
    if (by === null) button()?.click()
    for (const key of keys) {
      await nextTick()
      document.activeElement?.dispatchEvent(new KeyboardEvent('keydown', key))
    }
  } finally {
    begun = null
  }
}
function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.key === 'Tab') return
  const opens = ['Enter', ' ', 'ArrowDown', 'ArrowUp'].includes(event.key)
  if (begun === null && !opens) return
  event.preventDefault()
  if (event.repeat) return
  if (begun === null) void open(event)
  else begun.push(event)
}
</script>

<template>
  <span ref="root" class="contents" @keydown.capture="(e: KeyboardEvent) => passMainKey(e, root)"
    ><component
      :is="list"
      v-if="list && !held"
      :id="id"
      :model-value="modelValue"
      :choices="choices"
      :label="label"
      :shown="shown"
      :said="`${label}: ${shown}`"
      :looks="looks"
      :empty="chosen === null"
      @update:model-value="(v: string) => emit('update:modelValue', v)"
    /><span
      v-else
      :id="id"
      ref="plain"
      role="button"
      tabindex="0"
      aria-haspopup="listbox"
      aria-expanded="false"
      :class="looks"
      :data-empty="chosen === null"
      :aria-label="`${label}: ${shown}`"
      @pointerdown="hold"
      @click="open(null)"
      @keydown="onKey"
      >{{ shown }}</span
    ></span
  >
</template>
