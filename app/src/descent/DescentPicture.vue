<script setup lang="ts">
import type { Place } from '@yes-clear/core/file';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { columnsOf, type DescentInput, type DescentSize } from './drawing';
import { drawDescent } from './layout';
import { largeHeight } from './levels';
import { HEIGHT } from './sizes';
import VesselShape from './VesselShape.vue';
import { VALVE_PX } from './valves';
import { TICK_PX } from './words';

/**
 * The descent: the treatment train whose height is the water's conductivity. One component in three sizes.
 * In the large one, arrow keys walk the stages, Enter opens one, Alt and an arrow moves it.
 */
const props = defineProps<{
  input: DescentInput;
  size: DescentSize;
  /** The train in one sentence, for those who hear the picture. */
  sentence: string;
  selected?: string | null;
  /** Width of a column and of the axis, where a ledger stands under the picture. */
  columnWidth?: number;
  left?: number;
  /** Whether probes can be placed by pressing on a tube. */
  placing?: boolean;
}>();
const emit = defineEmits<{
  select: [stageId: string];
  move: [stageId: string, by: number];
  remove: [stageId: string];
  turn: [valveId: string];
  press: [place: Place, probeId: string | null, point: readonly [number, number]];
}>();

const host = useTemplateRef<HTMLElement>('host');
const { width: hostWidth } = useElementSize(host);
const columns = computed(() => (props.size === 'large' ? columnsOf(props.input) : props.input.stages.length + 1));
const left = computed(() => (props.size === 'large' ? (props.left ?? 96) : 0));
const columnWidth = computed(() => props.columnWidth ?? Math.max(8, (Math.max(120, hostWidth.value) - left.value) / columns.value));
const width = computed(() => left.value + columnWidth.value * columns.value);
const height = computed(() => (props.size === 'large' ? largeHeight(props.input) : HEIGHT[props.size]));
const drawing = computed(() =>
  drawDescent(props.input, {
    size: props.size,
    width: width.value,
    height: height.value,
    left: left.value,
    columnWidth: columnWidth.value,
  }),
);
const small = computed(() => props.size !== 'large');

const focused = ref(0);
const buttons = useTemplateRef<SVGGElement[]>('buttons');
function walk(event: KeyboardEvent, index: number): void {
  const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
  const stage = drawing.value.vessels[index];
  if (!stage) return;
  if (step !== 0) {
    event.preventDefault();
    if (event.altKey) emit('move', stage.stageId, step);
    const next = Math.max(0, Math.min(drawing.value.vessels.length - 1, index + step));
    focused.value = next;
    requestAnimationFrame(() => buttons.value?.[next]?.focus());
  } else if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault();
    emit('select', stage.stageId);
  } else if (event.key === 'Delete') {
    event.preventDefault();
    emit('remove', stage.stageId);
  }
}
/** A press on a tube, or on the ring of a probe. */
function press(event: MouseEvent | KeyboardEvent, place: Place, probeId: string | null): void {
  const box = (event.currentTarget as SVGElement).getBoundingClientRect();
  const point: [number, number] =
    event instanceof MouseEvent ? [event.clientX, event.clientY] : [box.x + box.width / 2, box.y + box.height];
  emit('press', place, probeId, point);
}
const placeOf = (id: string): Place | undefined => props.input.probes.find((probe) => probe.id === id);
const path = (points: readonly (readonly [number, number])[]): string =>
  points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join(' ');
</script>

<template>
  <figure ref="host" class="descent" :class="size">
    <!-- The axis stays in place while the picture scrolls under it. -->
    <svg v-if="!small" class="axis" :width="left" :height="height" :viewBox="`0 0 ${left} ${height}`" aria-hidden="true">
      <text v-for="tick in drawing.ticks" :key="tick.text" :x="left - 10" :y="tick.y + 4.5" text-anchor="end">{{ tick.text }}</text>
      <text class="way" :x="left - 10" y="20" text-anchor="end">{{ input.height === 'pressure' ? 'pressure ↑' : 'saltier ↑' }}</text>
      <text v-if="input.height !== 'pressure'" class="way" :x="left - 10" :y="height - 10" text-anchor="end">clearer ↓</text>
    </svg>
    <svg :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" :role="small ? 'img' : 'group'" :aria-label="sentence">
      <rect v-if="drawing.band && !small" class="band" v-bind="drawing.band" />
      <g v-if="!small" class="grid">
        <line v-for="tick in drawing.ticks" :key="tick.text" :x1="left" :x2="width" :y1="tick.y" :y2="tick.y" />
      </g>
      <g v-if="size === 'thumb'" class="thumb-lines">
        <line
          v-for="(pipe, i) in drawing.pipes.slice(1)"
          :key="`rise-${pipe.id}`"
          class="rise"
          :x1="pipe.points[0]![0]"
          :x2="pipe.points[0]![0]"
          :y1="drawing.pipes[i]!.id === 'waste' ? pipe.points[0]![1] : drawing.pipes[i]!.points[1]![1]"
          :y2="pipe.points[0]![1]"
        />
      </g>
      <g v-for="pipe in drawing.pipes" :key="pipe.id" class="pipe">
        <template v-if="size !== 'thumb' || pipe.id !== 'waste'">
          <path
            class="edge"
            :d="path(pipe.points)"
            :stroke-width="pipe.width + (small ? 1.6 : 3)"
            :stroke-linecap="pipe.open === 'none' ? 'butt' : 'round'"
          />
          <path
            class="water"
            :class="{ again: pipe.dashed }"
            :d="path(pipe.points)"
            :stroke="pipe.colour"
            :stroke-width="pipe.width"
            :stroke-linecap="pipe.open === 'none' ? 'butt' : 'round'"
          />
          <path v-if="!small" class="drift" :d="path(pipe.points)" :stroke-width="pipe.width * 0.34" />
          <path v-if="placing && pipe.place" class="tube" :d="path(pipe.points)" @click="press($event, pipe.place, null)">
            <title>Place a probe here</title>
          </path>
        </template>
      </g>
      <template v-if="size !== 'thumb'">
        <g
          v-for="(vessel, index) in drawing.vessels"
          :key="vessel.stageId"
          :ref="small ? undefined : 'buttons'"
          :role="small ? undefined : 'button'"
          :tabindex="small ? undefined : index === Math.min(focused, drawing.vessels.length - 1) ? 0 : -1"
          :aria-label="small ? undefined : `${vessel.name}, stage ${index + 1} of ${drawing.vessels.length}`"
          :aria-pressed="small ? undefined : selected === vessel.stageId"
          class="stage"
          @click="small || emit('select', vessel.stageId)"
          @focus="focused = index"
          @keydown="small || walk($event, index)"
        >
          <rect
            v-if="!small"
            class="reach"
            :x="vessel.box.x - 8"
            :y="vessel.box.y - 8"
            :width="vessel.box.width + 16"
            :height="vessel.box.height + 16"
            rx="14"
          />
          <VesselShape :vessel="vessel" :small="small" :selected="selected === vessel.stageId" />
        </g>
      </template>
      <g v-for="(branch, i) in drawing.ends" :key="branch.id" class="end">
        <line
          v-if="branch.laneY - branch.trueY > TICK_PX"
          :x1="branch.x - 10 - 15 * i"
          :x2="branch.x - 2 - 15 * i"
          :y1="branch.trueY"
          :y2="branch.trueY"
        />
        <line
          v-if="branch.laneY - branch.trueY > TICK_PX"
          class="drop"
          :x1="branch.x - 6 - 15 * i"
          :x2="branch.x - 6 - 15 * i"
          :y1="branch.trueY"
          :y2="branch.laneY"
        />
      </g>
      <circle v-if="drawing.unread" class="unread" :cx="drawing.unread.x" :cy="drawing.unread.y" r="6.2" />
      <g
        v-for="probe in drawing.probes"
        :key="probe.id"
        class="probe"
        :class="{ placing }"
        :role="placing ? 'button' : undefined"
        :tabindex="placing ? 0 : undefined"
        :aria-label="placing ? `Probe ${input.probes.findIndex(({ id }) => id === probe.id) + 1}` : undefined"
        @click="placing && press($event, placeOf(probe.id)!, probe.id)"
        @keydown.enter.prevent="placing && press($event, placeOf(probe.id)!, probe.id)"
      >
        <circle v-if="placing" class="reach" :cx="probe.x" :cy="probe.y" r="15" />
        <line
          v-if="probe.latestY !== null && Math.abs(probe.latestY - probe.y) > 7"
          class="gap"
          :x1="probe.x"
          :x2="probe.x"
          :y1="probe.y"
          :y2="probe.latestY"
        />
        <circle v-if="probe.baselineY !== null" class="baseline" :cx="probe.x" :cy="probe.baselineY" r="6.2" />
        <circle v-if="probe.latestY !== null" class="latest" :cx="probe.x" :cy="probe.latestY" r="3.6" />
        <circle v-if="probe.latestY === null && probe.baselineY === null" class="baseline" :cx="probe.x" :cy="probe.y" r="5.4" />
      </g>
      <g
        v-for="valve in drawing.valves"
        :key="valve.id"
        class="valve"
        role="button"
        tabindex="0"
        :aria-label="`Valve: ${valve.text}`"
        @click="emit('turn', valve.id)"
        @keydown.enter.prevent="emit('turn', valve.id)"
        @keydown.space.prevent="emit('turn', valve.id)"
      >
        <circle class="reach" :cx="valve.x" :cy="valve.y" r="22" />
        <circle class="body" :cx="valve.x" :cy="valve.y" :r="VALVE_PX" />
        <line
          :x1="valve.open ? valve.x - 5 : valve.x"
          :x2="valve.open ? valve.x + 5 : valve.x"
          :y1="valve.open ? valve.y : valve.y - 5"
          :y2="valve.open ? valve.y : valve.y + 5"
        />
      </g>
      <g class="labels">
        <text
          v-for="label in drawing.labels"
          :key="label.id"
          :class="label.look"
          :x="label.x"
          :y="label.y"
          :font-size="label.size"
          :font-weight="label.bold ? 680 : 450"
          :text-anchor="label.anchor"
        >
          {{ label.text }}
        </text>
      </g>
    </svg>
  </figure>
</template>

<!-- prettier-ignore -->
<style scoped>
.descent { margin: 0; min-width: 0; display: grid; }
svg { display: block; overflow: visible; grid-area: 1 / 1; }
.large { width: max-content; }
.large svg { font-family: var(--digits); }
.band { fill: var(--goal); }
.grid line { stroke: var(--hair); stroke-width: 1; }
.edge { stroke: #1b2b2d; fill: none; }
.water { fill: none; }
.again { stroke-dasharray: 9 5; }
.rise { stroke: #1b2b2d; stroke-width: 1.6; }
.drift { fill: none; stroke: #fff; opacity: 0.16; stroke-dasharray: 12 30; animation: drift 4.5s linear infinite; }
@keyframes drift { to { stroke-dashoffset: -42; } }
.large .stage { cursor: pointer; outline: none; }
.reach { fill: transparent; stroke: transparent; stroke-width: 2; }
.stage:focus-visible .reach { stroke: var(--action); }
.stage:hover .reach { fill: color-mix(in srgb, var(--action) 7%, transparent); }
.valve { cursor: pointer; outline: none; }
.valve .body { fill: var(--sheet); stroke: var(--action); stroke-width: 2.4; }
.valve line { stroke: var(--action); stroke-width: 3; stroke-linecap: round; }
.valve:focus-visible .reach { stroke: var(--action); }
.valve:hover .body { fill: color-mix(in srgb, var(--action) 16%, var(--sheet)); }
.baseline { fill: #fffdf8; stroke: #1b2b2d; stroke-width: 2; }
.latest { fill: #1b2b2d; stroke: #fffdf8; stroke-width: 0.8; }

.end line { stroke: var(--ink); stroke-width: 1.8; }
.end .drop { stroke-width: 1; stroke-dasharray: 2 3; opacity: 0.45; }
.tube { fill: none; stroke: transparent; stroke-width: 26; cursor: copy; pointer-events: stroke; }
.tube:hover { stroke: color-mix(in srgb, var(--action) 14%, transparent); }
.probe.placing { cursor: pointer; outline: none; }
.probe.placing:focus-visible .reach, .probe.placing:hover .reach { stroke: var(--action); }
.unread { fill: var(--sheet); stroke: var(--warning); stroke-width: 2; stroke-dasharray: 3 2.6; }
.gap { stroke: var(--bad); stroke-width: 1.6; stroke-dasharray: 2 3; }
text { fill: var(--ink); }
.quiet, .figure { fill: var(--muted); }
.figure { fill: var(--ink); }
.goal { fill: var(--good); }
text.valve { fill: var(--action); }
.axis text { font-family: var(--typed); font-size: 13px; fill: var(--muted); }
.axis .way { font-family: var(--digits); }
.axis { position: sticky; left: 0; z-index: 1; background: var(--sheet); border-radius: 12px 0 0; }
:root[data-theme='dark'] .edge, :root[data-theme='dark'] .rise { stroke: #0a1110; }
</style>
