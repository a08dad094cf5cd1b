<script setup lang="ts">
import { Decimal, HUNDRED, NOTHING, dec } from '#core/base/decimal'
import type { Money } from '#core/base/money'

/**
 * A budget line as one bar: spent solid, committed upright hatching, reserved slanted, this document amber, free
 * empty.
 */
const props = defineProps<{
  given: Money
  spent: Money
  committed: Money
  reserved: Money
  own?: Money
  mark?: number
  label: string
  height?: number
}>()
const id = useId()
const parts = computed(() => {
  const given = dec(props.given.amount)
  const values = [props.spent, props.committed, props.reserved, props.own].map((m) =>
    m === undefined ? NOTHING : Decimal.max(NOTHING, dec(m.amount)),
  )
  const sum = values.reduce((a, b) => a.plus(b), NOTHING)
  const whole = Decimal.max(given, sum)
  let x = 0
  return values.map((v) => {
    const width = whole.isZero() ? 0 : v.dividedBy(whole).times(HUNDRED).toNumber()
    const part = { x, width }
    x += width
    return part
  })
})
const FILL = computed(() => ['var(--ink)', `url(#u${id})`, `url(#s${id})`, 'var(--amber)'])
</script>

<template>
  <div class="relative" role="img" :aria-label="label">
    <svg
      width="100%"
      :height="height ?? 12"
      class="block overflow-hidden rounded-[3px] border border-ink"
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <defs>
        <pattern :id="`u${id}`" width="4" height="4" patternUnits="userSpaceOnUse">
          <rect width="1.5" height="4" x="1" fill="var(--ink)" />
        </pattern>
        <pattern :id="`s${id}`" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="1.3" height="5" fill="var(--ink2)" />
        </pattern>
      </defs>
      <rect
        v-for="(p, i) in parts"
        :key="i"
        :x="`${p.x}%`"
        y="0"
        :width="`${p.width}%`"
        height="100%"
        :fill="FILL[i]"
      />
    </svg>
    <span
      v-if="mark !== undefined"
      class="absolute -top-1.5 -bottom-1.5 border-l border-ink"
      :style="{ left: `${mark * 100}%` }"
      aria-hidden="true"
    />
  </div>
</template>
