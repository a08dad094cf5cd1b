<script setup lang="ts">
import type { PolicyStep, Who } from '#core/approval/policy'
import { ROLES } from '#core/people/rights'
import type { PersonFound } from '#shared/contract/people'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankText from '~/components/base/BlankText.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import PeopleBlank from '~/components/set-up/PeopleBlank.vue'
import { nth } from '~/composables/set-up/policy-edit'

/** Who is asked in a step of a rule, as a sentence whose blanks can be changed. */
const props = defineProps<{
  id: string
  ranks: readonly number[]
  departments: readonly { id: string; name: string }[]
  nameOf: (id: string) => string
}>()
const step = defineModel<PolicyStep>({ required: true })
const emit = defineEmits<{ rank: [place: 'before' | 'after' | number] }>()
const write = (who: Who) => {
  step.value = { ...step.value, who }
}

const orders = computed(() => [
  ...(props.ranks[0] === step.value.rank && props.ranks.length > 1
    ? []
    : [{ id: 'before', name: 'before all others' }]),
  ...props.ranks.map((r, i) => ({ id: String(r), name: nth(i) })),
  { id: 'after', name: 'after all others' },
])
const setOrder = (to: string) => {
  emit('rank', to === 'before' || to === 'after' ? to : Number(to))
}

const SORTS = [
  { id: 'covered', name: 'the chain of managers, to the first whose limit covers it' },
  { id: 'top', name: 'the chain of managers, to the top' },
  { id: 'person', name: 'one person' },
  { id: 'role', name: 'any one who holds a role' },
  { id: 'any', name: 'any one of a group' },
  { id: 'all', name: 'all of a group' },
  { id: 'budget holders', name: 'the holder of each budget line' },
]
const sort = computed(() => {
  const { who } = step.value
  return who.by === 'chain' ? who.until : who.by === 'group' ? who.mode : who.by
})
function setSort(to: string): void {
  const { who } = step.value
  const group = who.by === 'group' ? who : { by: 'group' as const, name: '', members: [] }
  if (to === 'covered' || to === 'top') write({ by: 'chain', until: to })
  else if (to === 'any' || to === 'all') write({ ...group, mode: to })
  else if (to === 'person') write({ by: 'person', personId: '' })
  else if (to === 'role') write({ by: 'role', role: 'finance', departmentId: null, holders: [] })
  else write({ by: 'budget holders' })
}
const roles = ROLES.map((r) => ({ id: r, name: r }))
const WHERE = { id: '', name: 'the organisation' }
const COVERS = [
  { id: 'any', name: 'whatever their limit' },
  { id: 'must', name: 'if their limit covers it' },
]
const person = computed<PersonFound | null>(() => {
  const { who } = step.value
  return who.by === 'person' && who.personId !== ''
    ? { id: who.personId, name: props.nameOf(who.personId), jobTitle: '', department: '' }
    : null
})
</script>

<template>
  <span class="leading-7"
    >asks
    <BlankChoice
      :id="id"
      :model-value="sort"
      :choices="SORTS"
      label="Who is asked"
      placeholder="who"
      @update:model-value="setSort" /><template v-if="step.who.by === 'person'"
      >:
      <PersonPicker
        :model-value="person"
        compact
        label="Which person"
        placeholder="a name"
        @update:model-value="write({ by: 'person', personId: $event?.id ?? '' })" /></template
    ><template v-else-if="step.who.by === 'role'"
      >:
      <BlankChoice
        :model-value="step.who.role"
        :choices="roles"
        label="Which role"
        placeholder="a role"
        @update:model-value="write({ ...step.who, role: $event })" />
      for
      <BlankChoice
        :model-value="step.who.departmentId ?? ''"
        :choices="[WHERE, ...departments]"
        label="For what the role is held"
        placeholder="the organisation"
        light
        @update:model-value="write({ ...step.who, departmentId: $event || null })" /></template
    ><template v-else-if="step.who.by === 'group'"
      >,
      <BlankText
        :model-value="step.who.name"
        label="What the group is called"
        placeholder="what it is called"
        :most="80"
        @update:model-value="write({ ...step.who, name: $event })" />:
      <PeopleBlank
        :model-value="step.who.members"
        :name-of="nameOf"
        label="Who is in the group"
        placeholder="a name"
        link="and"
        @update:model-value="write({ ...step.who, members: [...$event] })" /></template
    ><template v-if="step.who.by !== 'chain'"
      >,
      <BlankChoice
        :model-value="step.mustCover ? 'must' : 'any'"
        :choices="COVERS"
        label="Whether their limit counts"
        placeholder="whatever their limit"
        light
        @update:model-value="step = { ...step, mustCover: $event === 'must' }" /></template
    >,
    <BlankChoice
      :model-value="String(step.rank)"
      :choices="orders"
      label="When they are asked"
      placeholder="first"
      light
      @update:model-value="setOrder"
  /></span>
</template>
