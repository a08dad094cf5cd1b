<script setup lang="ts">
import { addDays } from '#core/base/day'
import type { DeskLine } from '#shared/contract/order'
import { capital, formatCount } from '#shared/words/format'
import BlankDay from '~/components/base/BlankDay.vue'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useUndo } from '~/composables/base/use-undo'
import { useWording } from '~/composables/base/use-wording'

/** What is marked on the Desk is put aside until a day, or waits again. */
const props = defineProps<{
  lines: readonly DeskLine[]
  /** They are put aside, and may wait again. */
  aside: boolean
}>()
const emit = defineEmits<{ done: [] }>()
const api = useApi()
const undo = useUndo()
const wording = useWording()
const { busy, trouble, act } = useAct()
/** The lines of which it is being said until when. */
const asked = shallowRef<readonly DeskLine[] | null>(null)
const until = ref<string | null>(null)
const reason = ref('')
const say = (lines: readonly DeskLine[]) =>
  lines.length === 1 ? `“${lines[0]?.description ?? ''}”` : formatCount(lines.length, 'line', 'lines')

function begin(): void {
  asked.value = props.lines
  until.value = null
  reason.value = ''
}
async function put(lineIds: readonly string[], day: string | null, why: string): Promise<void> {
  await api.post('/api/desk/aside', { body: { lineIds: [...lineIds], until: day, reason: why } })
  emit('done')
}
async function keep(): Promise<void> {
  const lines = asked.value
  const day = until.value
  if (lines === null) return
  if (day === null) {
    document.getElementById('aside-until')?.focus()
    return
  }
  const ids = lines.map((l) => l.id)
  const isDone = await act(() => put(ids, day, reason.value))
  if (!isDone) return
  asked.value = null
  const said = `${capital(say(lines))} ${lines.length === 1 ? 'is' : 'are'} put aside until ${wording.shortDay(day)}.`
  undo.show(said, 'Have them wait again', 10, () => put(ids, null, ''))
}
const wait = () =>
  act(() =>
    put(
      props.lines.map((l) => l.id),
      null,
      '',
    ),
  )
</script>

<template>
  <p v-if="lines.length > 0" class="small mt-2">
    <button v-if="aside" type="button" class="quiet-link min-h-6 text-left" :aria-busy="busy" @click="wait">
      Have {{ say(lines) }} wait again
    </button>
    <button v-else type="button" class="quiet-link min-h-6 text-left" @click="begin">
      Put {{ say(lines) }} aside for now
    </button>
  </p>
  <p v-if="trouble && asked === null" class="notice-red mt-2" role="alert">{{ trouble }}</p>
  <DialogSheet v-if="asked" :title="`Put ${say(asked)} aside`" :width="520" @main="keep" @close="asked = null">
    <form class="mt-3" @submit.prevent="keep">
      <p class="sentence-small leading-9!">
        Until
        <BlankDay
          id="aside-until"
          v-model="until"
          label="The day on which it waits again"
          placeholder="a day"
          :today="wording.today.value"
          :earliest="addDays(wording.today.value, 1)"
        />, when {{ asked.length === 1 ? 'it waits' : 'they wait' }} here again.
      </p>
      <label class="mt-3 block"
        ><span class="label">Why, for whoever asked for it</span
        ><input v-model="reason" class="field" maxlength="300" autocomplete="off" placeholder="Quotes are on their way"
      /></label>
      <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
      <div class="mt-4 flex items-center gap-3">
        <MainAction :missing="until === null" :busy="busy" keys="Ctrl ⏎" @press="keep">{{
          until === null ? 'Say until which day' : `Put aside until ${wording.shortDay(until)}`
        }}</MainAction>
        <button type="button" class="action shrink-0" @click="asked = null">Leave it</button>
      </div>
    </form>
  </DialogSheet>
</template>
