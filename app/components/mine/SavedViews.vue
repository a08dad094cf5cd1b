<script setup lang="ts">
import { sayError, useApi } from '~/composables/base/use-api'

/** The views of Mine that a person kept, and the keeping of the one that is seen. */
const props = defineProps<{
  /** What the address says of the view that is seen. */
  query: string
  /** Whether it differs from everything. */
  isNarrowed: boolean
}>()
const emit = defineEmits<{ trouble: [sentence: string] }>()

const api = useApi()
const { data: kept, refresh } = await useAsyncData('mine-views', () =>
  api.get('/api/views', { query: { place: 'mine' } }),
)
const name = ref('')
const isNaming = ref(false)
async function keep(): Promise<void> {
  try {
    await api.post('/api/views', { body: { place: 'mine', name: name.value, query: props.query } })
    isNaming.value = false
    name.value = ''
    await refresh()
  } catch (e) {
    emit('trouble', sayError(e))
  }
}
async function forget(id: string): Promise<void> {
  try {
    await api.remove('/api/views/{id}', { params: { id } })
    await refresh()
  } catch (e) {
    emit('trouble', sayError(e))
  }
}
</script>

<template>
  <div v-if="(kept?.views.length ?? 0) > 0 || isNarrowed" class="small flex flex-wrap items-baseline gap-x-3">
    <span v-for="v in kept?.views ?? []" :key="v.id" class="inline-flex gap-1.5"
      ><NuxtLink
        class="quiet-link"
        :to="`/mine?${v.query}`"
        :class="v.query === query ? 'font-semibold text-ink' : ''"
        >{{ v.name }}</NuxtLink
      ><button type="button" :aria-label="`Forget the view ${v.name}`" @click="forget(v.id)">×</button></span
    >
    <form
      v-if="isNaming"
      class="inline-flex items-baseline gap-2"
      @submit.prevent="keep"
      @keydown.esc="isNaming = false"
    >
      <input
        v-model="name"
        class="cell cell-fit w-auto! text-ink placeholder:italic"
        maxlength="60"
        aria-label="Name of the view"
        placeholder="a name for it"
      /><button type="submit" class="quiet-link">keep</button>
    </form>
    <button v-else-if="isNarrowed" type="button" class="quiet-link" @click="isNaming = true">keep this view</button>
  </div>
</template>
