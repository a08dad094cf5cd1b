<script setup lang="ts">
import type { Place } from '~/composables/base/places'

/** The places of one station, the one that one is at underlined. */
defineProps<{ places: readonly Place[]; here: string }>()
</script>

<template>
  <NuxtLink
    v-for="p in places"
    :key="p.path"
    :to="p.path"
    class="border-b-2 pb-1.5 whitespace-nowrap"
    :class="here === p.path ? 'border-ink font-semibold' : 'border-transparent text-ink2 hover:text-ink'"
    :aria-current="here === p.path ? 'page' : undefined"
    >{{ p.name }}</NuxtLink
  >
</template>
