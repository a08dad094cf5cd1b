<script setup lang="ts">
import type { Me } from '#shared/contract/session'
import { formatCounted } from '#shared/words/format'
import { besideFor, placeOf, STATIONS, type StationName } from '~/composables/base/places'
import StationPost from '~/components/base/StationPost.vue'
import PlaceLinks from '~/components/session/PlaceLinks.vue'
import PersonMenu from '~/components/session/PersonMenu.vue'

const SetUpPlaces = defineAsyncComponent(() => import('~/components/session/SetUpPlaces.vue'))

/** The way about: the five stations on one line, the places of the one you are at beneath. */
const props = defineProps<{ me: Me }>()
const emit = defineEmits<{ find: [] }>()
const route = useRoute()
const here = computed(() => placeOf(route.path))
const stations = computed(() =>
  STATIONS.map((s) => {
    const places = s.places.filter((p) => props.me.rights.includes(p.right))
    return { ...s, places, first: places[0]?.path ?? null, count: s.waits === null ? 0 : props.me.waiting[s.waits] }
  }),
)
const beside = computed(() => besideFor(props.me.rights))
const holds = (s: { readonly places: readonly { readonly path: string }[] }) =>
  s.places.some((p) => p.path === here.value)
const besideHere = computed(() => beside.value.find((b) => here.value.startsWith(b.path)))
const current = computed<string>(
  () => (stations.value.find(holds) ?? besideHere.value)?.name ?? ('Need' satisfies StationName),
)
const places = computed(() => stations.value.find((s) => s.name === current.value)?.places ?? [])
const onDecisionFor = (name: StationName, count: number) =>
  name === 'Order' ? `${formatCounted(count)} lines wait to be ordered` : `${count} wait for you`
</script>

<template>
  <header class="no-print mx-auto max-w-[1680px] px-5 max-[900px]:px-4">
    <div class="flex items-center gap-6 pt-3 max-[900px]:gap-4 max-[900px]:pt-2">
      <NuxtLink
        to="/"
        class="flex items-center gap-2 font-serif text-[20px] leading-7 font-medium"
        aria-label="Rekko, to where things wait"
      >
        <svg width="20" height="20" viewBox="0 0 24 24" aria-hidden="true">
          <rect x="4" y="4" width="5" height="15" rx="1.5" fill="var(--ink)" />
          <rect x="13" y="9" width="5" height="10" rx="1.5" fill="none" stroke="var(--ink)" stroke-width="1.8" />
          <path d="M1 21h22" stroke="var(--ink)" stroke-width="1.8" />
        </svg>
        <span class="max-[900px]:sr-only">Rekko</span>
      </NuxtLink>
      <nav class="ml-8 min-w-0 flex-1 max-[900px]:ml-0" aria-label="Stations">
        <ul class="flex max-w-[900px] items-end border-b border-strong max-[900px]:justify-between">
          <li v-for="s in stations" :key="s.name" class="flex-1 max-[900px]:flex-none">
            <component
              :is="s.first ? 'a' : 'span'"
              :href="s.first ?? undefined"
              class="flex w-fit items-end gap-3 max-[900px]:gap-1.5"
              :class="s.name === current ? 'font-semibold' : s.first ? 'text-ink2' : 'text-ink3'"
              :aria-current="s.name === current ? 'true' : undefined"
              :aria-label="
                s.count > 0
                  ? `${s.name}: ${onDecisionFor(s.name, s.count)}`
                  : s.first
                    ? s.name
                    : `${s.name}: nothing here for you yet`
              "
              @click.prevent="s.first && navigateTo(s.first)"
            >
              <StationPost size="nav" :look="s.name === current ? 'filled' : 'empty'" :share="1" />
              <span class="pb-1.5 max-[700px]:sr-only">{{ s.name }}</span>
              <span
                v-if="s.count > 0"
                class="mb-1.5 rounded-[3px] bg-amber px-1.5 text-[12px] leading-[19px] font-semibold text-[#14231f]"
                >{{ formatCounted(s.count, 'badge') }}</span
              >
            </component>
          </li>
        </ul>
      </nav>
      <button
        type="button"
        class="flex items-center gap-2 text-ink2 hover:text-ink"
        aria-haspopup="dialog"
        @click="emit('find')"
      >
        Find <kbd class="key font-sans max-[900px]:hidden" aria-hidden="true">/</kbd>
      </button>
      <NuxtLink
        v-for="b in beside"
        :key="b.name"
        :to="b.path"
        class="hover:text-ink max-[700px]:hidden"
        :class="b.name === current ? 'font-semibold' : 'text-ink2'"
        :aria-current="b.name === current ? 'true' : undefined"
        >{{ b.name }}</NuxtLink
      >
      <PersonMenu :me="me" />
    </div>
    <div class="flex min-h-[42px] items-end justify-between gap-4 pt-2.5">
      <nav class="flex min-w-0 gap-5 overflow-x-auto" :aria-label="`Places of ${current}`">
        <SetUpPlaces v-if="here.startsWith('/set-up')" :rights="me.rights" :here="here" />
        <PlaceLinks v-else-if="!besideHere" :places="places" :here="here" />
      </nav>
      <div id="page-note" class="flex min-w-0 items-center gap-3 pb-1.5 text-[13px] text-ink2 max-[900px]:hidden" />
    </div>
  </header>
</template>
