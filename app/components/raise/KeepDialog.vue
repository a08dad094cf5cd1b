<script setup lang="ts">
import type { Draft } from '#core/requisition/draft'
import { asRegular } from '#core/requisition/line-source'
import { RHYTHMS, type Rhythm } from '#core/requisition/rhythm'
import { addBusinessDays } from '#core/base/day'
import { RHYTHM_WORDS } from '#shared/words/regulars'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankDay from '~/components/base/BlankDay.vue'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import { sayError, useApi } from '~/composables/base/use-api'

/**
 * Keeps what is written for another time: its lines as regulars, or the whole as a template, with a rhythm if wished.
 */
const props = defineProps<{
  draft: Draft
  title: string
  departments: readonly { id: string; name: string }[]
  today: string
}>()
const emit = defineEmits<{ kept: [sentence: string]; close: [] }>()
const api = useApi()
const as = ref<'regulars' | 'template'>('template')
const name = ref(props.title)
const whose = ref('mine')
const rhythm = ref<Rhythm | 'never'>('never')
const startsOn = ref(addBusinessDays(props.today, 20, new Set()))
const sendsItself = ref('waits')
const neededAfter = ref('10')
const soundDays = computed(
  () => /^\d{1,3}$/.test(neededAfter.value) && Number(neededAfter.value) >= 1 && Number(neededAfter.value) <= 250,
)
const lacks = computed(() =>
  name.value.trim() === ''
    ? 'Give it a name first'
    : as.value === 'template' && rhythm.value !== 'never' && !soundDays.value
      ? 'Say after how many working days, 1 to 250'
      : '',
)
const busy = ref(false)
const trouble = ref('')
const AS = [
  { id: 'template', name: 'a template', note: 'the whole request, to begin from' },
  { id: 'regulars', name: 'a list of regulars', note: 'its lines, to take one or all of' },
]
const owners = computed(() => [
  { id: 'mine', name: 'me alone' },
  ...props.departments.map((d) => ({ id: d.id, name: `everybody in ${d.name}` })),
])
const rhythms = [
  { id: 'never', name: 'only when I begin from it' },
  ...RHYTHMS.map((r) => ({ id: r, name: `by itself, ${RHYTHM_WORDS[r]}` })),
]
const waysOn = [
  { id: 'waits', name: 'waits for my look' },
  { id: 'sends', name: 'is sent by itself' },
]
async function keep(): Promise<void> {
  if (busy.value || lacks.value !== '') return
  busy.value = true
  trouble.value = ''
  const departmentId = whose.value === 'mine' ? null : whose.value
  try {
    if (as.value === 'regulars') {
      await api.post('/api/regulars', {
        body: { name: name.value, departmentId, entries: props.draft.lines.map(asRegular) },
        key: crypto.randomUUID(),
      })
    } else
      await api.post('/api/templates', {
        body: {
          name: name.value,
          departmentId,
          draft: props.draft,
          rhythm:
            rhythm.value === 'never'
              ? null
              : {
                  every: rhythm.value,
                  startsOn: startsOn.value,
                  sendsItself: sendsItself.value === 'sends',
                  neededAfter: Number(neededAfter.value),
                },
        },
        key: crypto.randomUUID(),
      })
    emit(
      'kept',
      as.value === 'regulars'
        ? `Kept as regulars: ${name.value}.`
        : rhythm.value === 'never'
          ? `Kept as a template: ${name.value}.`
          : `Kept: ${name.value} is raised ${RHYTHM_WORDS[rhythm.value]} from now on.`,
    )
  } catch (e) {
    trouble.value = sayError(e)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <DialogSheet title="Keep it for another time" hide-title :width="560" @close="emit('close')" @main="keep">
    <p class="sentence text-[21px]! leading-[31px]!">
      Keep this as
      <BlankChoice
        id="keep-as"
        :model-value="as"
        :choices="AS"
        label="Kept as"
        placeholder="what"
        @update:model-value="as = $event as typeof as"
      />
      for
      <BlankChoice
        :model-value="whose"
        :choices="owners"
        label="For whom"
        placeholder="whom"
        @update:model-value="whose = $event"
      />, called
      <input v-model="name" class="blank blank-input" aria-label="Called" maxlength="80" placeholder="a name" />.
      <template v-if="as === 'template'">
        It is raised
        <BlankChoice
          :model-value="rhythm"
          :choices="rhythms"
          label="How often"
          placeholder="how often"
          @update:model-value="rhythm = $event as typeof rhythm"
        /><template v-if="rhythm === 'never'">.</template>
        <template v-else
          >, first on <BlankDay v-model="startsOn" label="First on" placeholder="which day" :today="today" />; then it
          <BlankChoice
            :model-value="sendsItself"
            :choices="waysOn"
            label="What happens then"
            placeholder="what"
            @update:model-value="sendsItself = $event"
          />, needed
          <input
            v-model="neededAfter"
            inputmode="numeric"
            class="blank blank-input"
            maxlength="3"
            aria-label="Needed after working days"
          />
          working days later.</template
        >
      </template>
    </p>
    <p v-if="as === 'template'" class="small mt-3">
      It keeps everything but the day it is needed and the attachments; prices and budget lines are those of the day it
      is begun.
    </p>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <div class="mt-5 flex flex-wrap gap-2.5">
      <div class="min-w-[240px] flex-1">
        <MainAction :missing="lacks !== ''" :busy="busy" keys="Ctrl ⏎" @press="keep">{{
          lacks !== '' ? lacks : as === 'regulars' ? 'Keep its lines as regulars' : 'Keep it as a template'
        }}</MainAction>
      </div>
      <button type="button" class="action" @click="emit('close')">Leave it</button>
    </div>
  </DialogSheet>
</template>
