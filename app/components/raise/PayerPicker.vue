<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { matchCode } from '#core/budget/code'
import { readTypedPayer, type TypedPayer } from '#core/requisition/typed-payer'
import type { PayingLine } from '#core/requisition/draft-facts'
import { sayPayers } from '#shared/words/payer'
import { closeCombobox, openCombobox } from '~/composables/base/open-combobox'
import { isMainKey } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'

/** What pays for a line: chosen by plain name, with what is left of it, or by its code, typed in whole or in part. */
const props = defineProps<{
  id: string
  label: string
  shown: string
  chosen: string | null
  payers: readonly PayingLine[]
  categoryAccount: string | null
  lefts: (id: string) => string
  mayDivide: boolean
}>()
const emit = defineEmits<{ choose: [id: string]; divide: []; divided: [payer: TypedPayer] }>()
const wording = useWording()
const DIVIDE = 'divide'
const TYPED = 'typed'
/** What is typed stays, even when a payer is proposed meanwhile. */
const words = ref('')
const nobody: string | null = null
const byWords = computed(() => {
  const text = words.value.trim().toLowerCase()
  if (text === '') return [...props.payers]
  const byCode = matchCode(text, props.payers, props.categoryAccount)
  const byName = props.payers.filter((p) => p.name.toLowerCase().includes(text) && !byCode.includes(p))
  return [
    ...byCode,
    ...byName.sort(
      (a, b) => Number(b.name.toLowerCase().startsWith(text)) - Number(a.name.toLowerCase().startsWith(text)),
    ),
  ]
})
/** Several payers as they are typed, with their parts. */
const typed = computed(() => {
  const found = readTypedPayer(words.value, props.payers, wording.decimalMark, props.categoryAccount)
  return found !== null && found.codings.length > 1 ? found : null
})
const typedWords = computed(() =>
  typed.value === null
    ? ''
    : sayPayers(typed.value, (id) => props.payers.find((p) => p.id === id)?.name ?? '', wording.ways).join(' · '),
)
const dividing = computed(
  () =>
    props.mayDivide && (words.value.trim() === '' || 'several of them'.startsWith(words.value.trim().toLowerCase())),
)
function choose(id: string | null): void {
  const several = typed.value
  words.value = ''
  if (id === TYPED && several !== null) emit('divided', several)
  else if (id === DIVIDE) emit('divide')
  else if (id !== null) emit('choose', id)
}
/** The key of the main action is the page's, also from here; with nothing typed Enter opens, and Tab takes nothing. */
function onKey(event: KeyboardEvent): void {
  if (words.value === '' && event.key === 'Tab') closeCombobox(event)
  if (!isMainKey(event)) {
    if (words.value === '' && event.key === 'Enter') openCombobox(event)
    return
  }
  event.preventDefault()
  event.stopPropagation()
  ;(event.target as HTMLElement).closest('td')?.dispatchEvent(new KeyboardEvent('keydown', event))
}
</script>

<template>
  <Combobox
    as="span"
    nullable
    class="relative block"
    :model-value="nobody"
    @update:model-value="choose"
    @keydown.capture="onKey"
  >
    <ComboboxInput
      :id="id"
      class="cell"
      :class="shown === '' ? 'placeholder:italic placeholder:text-amber-ink' : ''"
      :aria-label="label"
      :display-value="() => (words === '' ? shown : words)"
      placeholder="what pays?"
      autocomplete="off"
      @click="openCombobox"
      @blur="words = ''"
      @focus="
        (e: FocusEvent) => {
          words = ''
          ;(e.target as HTMLInputElement).select()
        }
      "
      @change="
        (e: Event) => {
          words = (e.target as HTMLInputElement).value
        }
      "
    />
    <ComboboxOptions class="picker left-0 top-full">
      <ComboboxOption v-if="typed" v-slot="{ active }" as="template" :value="TYPED"
        ><li class="option list-none" :data-active="active">
          {{ typedWords }}<span v-if="typed.splitMethod === 'share'" class="small block">in equal shares</span>
        </li></ComboboxOption
      >
      <ComboboxOption v-for="p in byWords" v-slot="{ active }" :key="p.id" as="template" :value="p.id">
        <li class="option flex list-none items-baseline justify-between gap-4" :data-active="active">
          <span
            ><span :class="p.id === chosen ? 'font-semibold' : ''">{{ p.name }}</span
            ><span class="small block">{{ p.code }}</span></span
          ><span class="small num">{{ lefts(p.id) }}</span>
        </li>
      </ComboboxOption>
      <ComboboxOption v-if="dividing" v-slot="{ active }" as="template" :value="DIVIDE"
        ><li class="option list-none" :data-active="active">
          Several of them<span class="small block">divided by percent, amount or quantity</span>
        </li></ComboboxOption
      >
      <li v-if="byWords.length === 0 && !dividing && typed === null" class="option list-none text-ink3">
        Nothing of this department is called so, or has this code.
      </li>
    </ComboboxOptions>
  </Combobox>
</template>
