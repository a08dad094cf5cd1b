<script setup lang="ts">
/** The mark of a station: an upright post that fills from its foot by the true share. */
const props = withDefaults(
  defineProps<{
    look?: 'empty' | 'dashed' | 'filled' | 'stopped'
    share?: number
    waits?: boolean
    size?: 'small' | 'nav' | 'large'
  }>(),
  { look: 'empty', share: 0, waits: false, size: 'small' },
)

const SIZE = { small: [8, 15], nav: [8, 15], large: [11, 21] } as const
const dims = computed(() => SIZE[props.size])
const fill = computed(() => (props.look === 'filled' ? Math.max(0, Math.min(1, props.share)) : 0))
</script>

<template>
  <svg :width="dims[0]" :height="dims[1]" viewBox="0 0 8 15" class="shrink-0 overflow-visible" aria-hidden="true">
    <rect
      x="0.75"
      y="0.75"
      width="6.5"
      height="13.5"
      rx="1.6"
      :fill="waits ? 'var(--amber)' : 'none'"
      stroke="var(--ink)"
      stroke-width="1.5"
      :stroke-dasharray="look === 'dashed' ? '2 1.6' : undefined"
    />
    <rect
      v-if="fill > 0 && !waits"
      x="0.75"
      :y="0.75 + 13.5 * (1 - fill)"
      width="6.5"
      :height="13.5 * fill"
      :rx="fill === 1 ? 1.6 : 0.8"
      fill="var(--ink)"
    />
    <path v-if="look === 'stopped'" d="M-2 11 L10 4" stroke="var(--ink)" stroke-width="1.5" />
  </svg>
</template>
