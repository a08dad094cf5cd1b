<script setup lang="ts">
import { policyChanges, type PolicyForm } from '#core/approval/policy-form'
import { sayEnding, type PolicyNames } from '#shared/words/policy'
import { sayPolicyChange } from '#shared/words/policy-form'
import { useWording } from '~/composables/base/use-wording'

/** What differs between two policies, sentence by sentence. */
const props = defineProps<{ before: PolicyForm; after: PolicyForm; names: PolicyNames; none: string }>()
const wording = useWording()
const changes = computed(() =>
  policyChanges(props.before, props.after).map((c) =>
    sayPolicyChange(c, props.before, props.after, props.names, wording.ways, (form) => sayEnding(form, props.names)),
  ),
)
</script>

<template>
  <p v-if="changes.length === 0" class="small">{{ none }}</p>
  <ul v-else>
    <li v-for="c in changes" :key="JSON.stringify(c)" class="border-t border-rule py-1.5">
      <span class="small block">{{ c.of }}</span>
      <del v-if="c.was" class="block text-ink3"><span class="sr-only">before: </span>{{ c.was }}</del>
      <ins v-if="c.is" class="block no-underline"><span class="sr-only">now: </span>{{ c.is }}</ins>
    </li>
  </ul>
</template>
