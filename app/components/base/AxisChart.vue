<script setup lang="ts">
import { BarChart, LineChart } from 'echarts/charts'
import { AriaComponent, GridComponent } from 'echarts/components'
import { init, use, type EChartsType } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { useWording } from '~/composables/base/use-wording'

/** One series of a chart: stacked bars in a hatching of their own, or a line that the others are held against. */
export interface ChartSeries {
  readonly name: string
  readonly look: 'solid' | 'upright' | 'slanted' | 'line'
  /** Decimal texts, one for each category. */
  readonly values: readonly string[]
}

/** A chart with axes, in ink and hatching, with its figures as a table below. */
const props = defineProps<{
  label: string
  categories: readonly string[]
  series: readonly ChartSeries[]
  /** Formats a value for the table. */
  format: (value: string) => string
}>()
use([BarChart, LineChart, GridComponent, AriaComponent, SVGRenderer])

const wording = useWording()
const box = useTemplateRef<HTMLElement>('box')
let chart: EChartsType | null = null
let watcher: ResizeObserver | null = null
const night = import.meta.client ? window.matchMedia('(prefers-color-scheme: dark)') : null

/** The hatchings of money: spent solid, ordered upright, asked for slanted. */
const DECALS = {
  solid: null,
  upright: { symbol: 'rect', dashArrayX: [2, 2], dashArrayY: [4, 0], symbolSize: 1 },
  slanted: { symbol: 'rect', dashArrayX: [1, 0], dashArrayY: [0.8, 3.8], rotation: -Math.PI / 4, symbolSize: 1 },
} as const

function draw(): void {
  if (box.value === null) return
  // A token is two colours until something is drawn with it.
  const probe = document.createElement('i')
  box.value.append(probe)
  const token = (name: string) => {
    probe.style.color = `var(${name})`
    return getComputedStyle(probe).color
  }
  const [ink, ink3, rule, sheet, green] = ['--ink', '--ink3', '--rule', '--margin', '--green'].map(token)
  probe.remove()
  chart ??= init(box.value, null, { renderer: 'svg' })
  chart.setOption(
    {
      animation: false,
      aria: { enabled: true, label: { description: props.label } },
      grid: { left: 4, right: 4, top: 8, bottom: 4, containLabel: true },
      textStyle: { fontFamily: 'inherit' },
      xAxis: {
        type: 'category',
        data: [...props.categories],
        axisTick: { show: false },
        axisLine: { lineStyle: { color: ink3 } },
        axisLabel: { color: ink3, fontSize: 11 },
      },
      yAxis: {
        type: 'value',
        splitNumber: 3,
        splitLine: { lineStyle: { color: rule } },
        axisLabel: { color: ink3, fontSize: 11, formatter: (v: number) => wording.decimal(String(v)) },
      },
      series: props.series.map((s) => {
        // What is drawn may be rounded by a float; the table below says it exactly.
        const data = s.values.map((v) => Number(v) || null)
        if (s.look === 'line')
          return {
            name: s.name,
            type: 'line',
            data,
            step: 'middle',
            symbol: 'none',
            lineStyle: { color: green, width: 1.5, type: 'dashed' },
          }
        const decal = DECALS[s.look]
        return {
          name: s.name,
          type: 'bar',
          stack: 'money',
          data,
          barWidth: '62%',
          itemStyle:
            decal === null
              ? { color: ink }
              : { color: sheet, borderColor: ink, borderWidth: 0.8, decal: { ...decal, color: ink } },
        }
      }),
    },
    true,
  )
}
onMounted(() => {
  draw()
  watcher = new ResizeObserver(() => chart?.resize())
  if (box.value !== null) watcher.observe(box.value)
  night?.addEventListener('change', draw)
})
watch(() => [props.series, props.categories], draw)
onBeforeUnmount(() => {
  watcher?.disconnect()
  night?.removeEventListener('change', draw)
  chart?.dispose()
})
</script>

<template>
  <figure>
    <div ref="box" class="h-[140px] w-full" role="img" :aria-label="label" />
    <figcaption class="small">
      <details>
        <summary class="quiet-link w-fit cursor-pointer">The figures</summary>
        <table class="mt-1 w-full" :aria-label="label">
          <thead>
            <tr>
              <th scope="col"><span class="sr-only">When</span></th>
              <th v-for="s in series" :key="s.name" scope="col" class="num">{{ s.name }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(c, i) in categories" :key="c">
              <th scope="row" class="text-left font-normal">{{ c }}</th>
              <td v-for="s in series" :key="s.name" class="num">{{ format(s.values[i] ?? '0') }}</td>
            </tr>
          </tbody>
        </table>
      </details>
    </figcaption>
  </figure>
</template>
