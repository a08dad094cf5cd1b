<script setup lang="ts">
import type { ItemPage } from '#shared/contract/catalogue'
import { uploadFile } from '~/composables/base/upload-file'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'

/** Pictures of an item, one looked at large; whoever keeps the catalogue adds, orders and takes them away. */
const props = defineProps<{ itemId: string; name: string; pictures: ItemPage['pictures']; mayKeep: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const { busy, trouble, act } = useAct()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const looked = ref(0)
const shown = computed(() => props.pictures[Math.min(looked.value, props.pictures.length - 1)])
const srcOf = (id: string) => `/api/items/${props.itemId}/pictures/${id}`
const paramsOf = (pictureId: string) => ({ params: { id: props.itemId, pictureId } })

async function change(work: () => Promise<unknown>): Promise<void> {
  if (!(await act(work))) return
  looked.value = 0
  emit('changed')
}
function keepAll(files: Iterable<File>): void {
  const all = [...files]
  if (all.length === 0 || !props.mayKeep) return
  void change(async () => {
    for (const file of all)
      await uploadFile(
        '/api/items/{id}/pictures',
        { params: { id: props.itemId }, query: { name: file.name } },
        file,
        () => undefined,
      )
  })
}
function chosen(event: Event): void {
  const box = event.target as HTMLInputElement
  keepAll(box.files ?? [])
  box.value = ''
}
const remove = (id: string) => change(() => api.remove('/api/items/{id}/pictures/{pictureId}', paramsOf(id)))
const putFirst = (id: string) => change(() => api.put('/api/items/{id}/pictures/{pictureId}', paramsOf(id)))
</script>

<template>
  <section v-if="pictures.length > 0 || mayKeep" class="mt-5" aria-labelledby="pictures-head">
    <h2 id="pictures-head" class="sr-only">Pictures</h2>
    <div v-if="shown" class="flex flex-wrap items-start gap-4">
      <img
        :src="srcOf(shown.id)"
        :alt="`${name}, picture ${pictures.indexOf(shown) + 1} of ${pictures.length}`"
        class="h-[220px] max-w-full rounded border border-rule bg-white object-contain"
      />
      <ul v-if="pictures.length > 1" class="flex flex-wrap gap-2">
        <li v-for="(p, i) in pictures" :key="p.id">
          <button
            type="button"
            class="rounded border p-0.5"
            :class="p.id === shown.id ? 'border-ink' : 'border-rule'"
            :aria-label="`Look at picture ${i + 1}`"
            :aria-pressed="p.id === shown.id"
            @click="looked = i"
          >
            <img :src="srcOf(p.id)" alt="" class="size-12 bg-white object-contain" loading="lazy" />
          </button>
        </li>
      </ul>
    </div>
    <p
      v-if="mayKeep"
      class="small mt-1.5 flex flex-wrap gap-x-4"
      @dragover.prevent
      @drop.prevent="keepAll($event.dataTransfer?.files ?? [])"
    >
      <button type="button" class="quiet-link min-h-6" :aria-busy="busy" @click="chooser?.click()">
        {{ busy ? 'keeping it …' : pictures.length === 0 ? 'Add a picture' : 'Add another picture' }}
      </button>
      <template v-if="shown">
        <button
          v-if="pictures[0]?.id !== shown.id"
          type="button"
          class="quiet-link min-h-6"
          @click="putFirst(shown.id)"
        >
          Let this one stand for it
        </button>
        <button type="button" class="quiet-link min-h-6" @click="remove(shown.id)">Take this one away</button>
      </template>
      <input
        ref="chooser"
        type="file"
        multiple
        class="sr-only"
        tabindex="-1"
        accept=".png,.jpg,.jpeg"
        aria-label="Pictures of the item"
        @change="chosen"
      />
    </p>
    <p v-if="trouble" class="notice-red mt-2 max-w-[640px]" role="alert">{{ trouble }}</p>
  </section>
</template>
