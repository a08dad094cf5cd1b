<script setup lang="ts">
import type { PolicyVersion, PolicyView } from '#shared/contract/policy'
import type { PolicyForm } from '#core/approval/policy-form'
import { formatCount } from '#shared/words/format'
import type { PolicyNames } from '#shared/words/policy'
import PolicyChanges from '~/components/set-up/PolicyChanges.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** The versions of the policy: since when each holds, who put it in force, and what differs from what holds now. */
const props = defineProps<{ view: PolicyView; names: PolicyNames; mayWrite: boolean }>()
const emit = defineEmits<{ restore: [form: PolicyForm, number: number]; callOff: [number: number] }>()
const api = useApi()
const wording = useWording()
const shown = shallowRef<PolicyVersion | null>(null)
const trouble = ref('')
async function show(number: number): Promise<void> {
  if (shown.value?.number === number) {
    shown.value = null
    return
  }
  trouble.value = ''
  try {
    shown.value = await api.get('/api/approval-policy/versions/{number}', { params: { number } })
  } catch (e) {
    trouble.value = sayError(e)
  }
}
type Version = PolicyView['versions'][number]
const isAhead = (v: Version) => !v.isCalledOff && new Date(v.inForceAt) > new Date()
function say(v: Version): string {
  const when = v.isCalledOff
    ? `called off${v.calledOffBy === null ? '' : ` by ${v.calledOffBy}`}`
    : v.number === props.view.number
      ? `in force since ${wording.moment(v.inForceAt)}`
      : isAhead(v)
        ? `holds from ${wording.moment(v.inForceAt)}`
        : `held from ${wording.moment(v.inForceAt)}`
  const by =
    v.askedBy === null
      ? ''
      : v.confirmedBy === v.askedBy || v.confirmedBy === null
        ? `, by ${v.askedBy}`
        : `, asked for by ${v.askedBy}, confirmed by ${v.confirmedBy}`
  const decisions = v.decisions === 0 ? '' : ` · ${formatCount(v.decisions, 'decision', 'decisions')} followed it`
  return `${when}${by}${decisions}`
}
</script>

<template>
  <section class="mt-7" aria-labelledby="policy-versions">
    <h2 id="policy-versions" class="head border-b border-ink pb-1.5">Versions</h2>
    <ol reversed>
      <li v-for="v in view.versions" :key="v.number" class="border-b border-rule py-2.5">
        <div class="flex items-baseline gap-3 max-[700px]:block">
          <span class="w-5 shrink-0 font-serif text-[18px] text-ink3 tabular-nums">{{ v.number }}</span>
          <span class="min-w-0 flex-1" :class="v.isCalledOff ? 'text-ink3' : ''"
            ><span class="font-medium">{{ v.name }}</span
            ><span class="small block">{{ say(v) }}</span></span
          >
          <span class="flex shrink-0 gap-4">
            <button
              v-if="v.number !== view.number"
              type="button"
              class="small quiet-link min-h-6"
              :aria-expanded="shown?.number === v.number"
              :aria-label="`What version ${v.number} says otherwise`"
              @click="show(v.number)"
            >
              {{ shown?.number === v.number ? 'close' : 'compare' }}
            </button>
            <button
              v-if="mayWrite && isAhead(v)"
              type="button"
              class="small quiet-link min-h-6"
              :aria-label="`Call version ${v.number} off`"
              @click="emit('callOff', v.number)"
            >
              call off
            </button>
          </span>
        </div>
        <div v-if="shown?.number === v.number" class="mt-2 pl-8 max-[700px]:pl-0">
          <p class="small mb-1">What it says otherwise than version {{ view.number }}, which is in force:</p>
          <PolicyChanges :before="view.form" :after="shown.form" :names="names" none="It says the same." />
          <button
            v-if="mayWrite"
            type="button"
            class="quiet-link mt-1 min-h-6"
            @click="emit('restore', shown.form, v.number)"
          >
            write all of it into the draft
          </button>
        </div>
      </li>
    </ol>
    <p v-if="trouble" class="notice-red mt-2" role="alert">{{ trouble }}</p>
  </section>
</template>
