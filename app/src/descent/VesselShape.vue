<script setup lang="ts">
import { computed } from 'vue';
import type { Vessel } from './drawing';

/** One vessel, drawn by its kind. All drawings are our own. */
const props = defineProps<{ vessel: Vessel; small: boolean; selected: boolean }>();
const id = computed(() => `water-${props.vessel.stageId.replace(/[^a-z0-9]/gi, '')}-${props.small ? 's' : 'l'}`);
const b = computed(() => props.vessel.box);
const radius = computed(() => (props.small ? 4 : Math.min(11, b.value.width / 3)));
/** Its vessels, or the one it is. */
const tubes = computed(() => props.vessel.tubes ?? [{ box: b.value, joints: [] }]);
const inset = computed(() => (props.small ? 2 : 4.5));
const inner = computed(() => ({
  x: b.value.x + inset.value,
  y: b.value.y + inset.value * 1.6,
  width: b.value.width - 2 * inset.value,
  height: b.value.height - 3.2 * inset.value,
}));
/** Three loops of a coil along the line. */
const coil = computed(() => {
  const r = props.small ? 3 : 9;
  const y = b.value.y + b.value.height / 2;
  const start = b.value.x + b.value.width / 2 - 1.5 * r;
  return [0, 1, 2].map((k) => `M${start + k * r - r} ${y} a${r} ${r * 1.5} 0 1 1 ${2 * r} 0 a${r} ${r * 1.5} 0 1 1 ${-2 * r} 0`).join(' ');
});
/** Three curved blades around the hub, sized to the casing. */
const blades = computed(() => {
  const r = b.value.width / 2 - 4;
  const [cx, cy] = [b.value.x + b.value.width / 2, b.value.y + b.value.height / 2];
  const at = (angle: number, length: number): string => `${cx + length * Math.cos(angle)} ${cy + length * Math.sin(angle)}`;
  return [0, 1, 2]
    .map((k) => (k * 2 * Math.PI) / 3 - Math.PI / 2)
    .map((a) => `M${cx} ${cy} Q${at(a + 0.2, r * 0.65)} ${at(a + 1.05, r)}`)
    .join(' ');
});
</script>

<template>
  <g class="vessel" :class="[vessel.kind, { dry: vessel.dry, selected }]">
    <template v-if="vessel.kind === 'membrane'">
      <defs>
        <linearGradient :id="id" gradientUnits="userSpaceOnUse" x1="0" :y1="b.y" x2="0" :y2="b.y + b.height">
          <stop offset="0.08" :stop-color="vessel.from" /><stop offset="0.92" :stop-color="vessel.to" />
        </linearGradient>
      </defs>
      <template v-for="(tube, k) in tubes" :key="k">
        <rect
          class="body"
          :x="tube.box.x"
          :y="tube.box.y"
          :width="tube.box.width"
          :height="tube.box.height"
          :rx="Math.min(radius, tube.box.width / 2.4)"
          :fill="`url(#${id})`"
        />
        <line
          class="skin"
          :x1="tube.box.x + tube.box.width / 2"
          :x2="tube.box.x + tube.box.width / 2"
          :y1="tube.box.y + 9"
          :y2="tube.box.y + tube.box.height - 9"
        />
        <line
          v-for="joint in tube.joints"
          :key="joint"
          class="joint"
          :x1="tube.box.x"
          :x2="tube.box.x + tube.box.width"
          :y1="joint"
          :y2="joint"
        />
      </template>
    </template>
    <template v-else-if="vessel.kind === 'resin'">
      <rect class="body shell" :x="b.x" :y="b.y" :width="b.width" :height="b.height" :rx="radius" />
      <rect class="spent" :x="inner.x" :y="inner.y" :width="inner.width" :height="inner.height * vessel.fill" />
      <rect
        class="fresh"
        :x="inner.x"
        :y="inner.y + inner.height * vessel.fill"
        :width="inner.width"
        :height="inner.height * (1 - vessel.fill)"
      />
    </template>
    <template v-else-if="vessel.kind === 'tank'">
      <rect class="back" :x="b.x" :y="b.y" :width="b.width" :height="b.height" />
      <rect
        :x="b.x + 2"
        :y="b.y + b.height * (1 - vessel.fill)"
        :width="b.width - 4"
        :height="Math.max(0, b.height * vessel.fill - 2)"
        :fill="vessel.from"
      />
      <path class="walls" :d="`M${b.x} ${b.y} V${b.y + b.height} H${b.x + b.width} V${b.y}`" />
    </template>
    <template v-else-if="vessel.kind === 'pump'">
      <circle class="body casing" :cx="b.x + b.width / 2" :cy="b.y + b.height / 2" :r="b.width / 2" />
      <path v-if="!small" class="blades" :d="blades" />
      <circle v-else class="hub" :cx="b.x + b.width / 2" :cy="b.y + b.height / 2" r="2" />
    </template>
    <template v-else-if="vessel.kind === 'tubing'">
      <path class="coil" :d="coil" />
    </template>
    <template v-else-if="vessel.kind === 'uv'">
      <rect class="body shell" :x="b.x" :y="b.y + b.height * 0.18" :width="b.width" :height="b.height * 0.64" :rx="radius" />
      <rect
        class="lamp"
        :x="b.x + b.width / 2 - (small ? 1.5 : 4)"
        :y="b.y + b.height * 0.26"
        :width="small ? 3 : 8"
        :height="b.height * 0.48"
        rx="4"
      />
    </template>
    <template v-else>
      <rect class="body" :x="b.x" :y="b.y" :width="b.width" :height="b.height" :rx="radius" />
      <rect
        v-if="vessel.fill > 0.02 && !small"
        class="loaded"
        :x="inner.x"
        :y="inner.y + inner.height * (1 - vessel.fill)"
        :width="inner.width"
        :height="inner.height * vessel.fill"
        rx="3"
      />
    </template>
  </g>
</template>

<!-- prettier-ignore -->
<style scoped>
.body, .walls { stroke: var(--vessel-line, #1b2b2d); stroke-width: 2; }
.sediment .body { fill: #f7f2e5; }
.sediment .loaded { fill: #d9cba6; }
.carbon .body { fill: #4a4a46; }
.carbon .loaded { fill: #33332f; }
.shell, .casing { fill: #f7f2e5; }
.coil { fill: none; stroke: var(--muted); stroke-width: 2.4; }
.blades { fill: none; stroke: #1b2b2d; stroke-width: 2.6; stroke-linecap: round; }
.hub { fill: #1b2b2d; }
.softener .body { fill: #cdb8c9; }
.decarboniser .body { fill: #b9a7c9; }
.inhibitor .body { fill: #e3d7e6; }
.calcite .body { fill: #f4efe6; }
.lamp { fill: #a678d8; }
.spent { fill: var(--resin-spent); }
.fresh { fill: #2d5f8e; }
.back { fill: var(--sheet); }
.walls { fill: none; stroke-width: 2.4; }
.joint { stroke: var(--vessel-line, #1b2b2d); stroke-width: 2; }
.skin { stroke: #fff; stroke-width: 2.4; stroke-dasharray: 3 4.5; opacity: 0.9; }
.selected .body, .selected .walls { stroke: var(--action); stroke-width: 3.4; }
.dry { opacity: 0.38; }
:root[data-theme='dark'] .vessel { --vessel-line: #0a1110; }
:root[data-theme='dark'] .walls { stroke: #9fb0ad; }
</style>
