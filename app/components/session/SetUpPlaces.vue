<script setup lang="ts">
import PlaceLinks from '~/components/session/PlaceLinks.vue'
import { SET_UP_PLACES } from '~/composables/set-up/places'

/** The places of Set-up for somebody with these rights. */
const props = defineProps<{ rights: readonly string[]; here: string }>()
const places = computed(() => SET_UP_PLACES.filter((p) => props.rights.includes(p.right)))
</script>

<template>
  <PlaceLinks :places="places" :here="here" />
</template>
