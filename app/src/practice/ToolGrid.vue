<script setup lang="ts">
import { hasValve, HARMS, VALVES, valveLabel, type BenchAction, type ValveId, type Valves } from '@yes-clear/core/fault';
import { THIN } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import Segments from '../kit/Segments.vue';
import type { PracticeView } from '../worker/practiceBench';
import { minutesText } from './say';

/** Everything that can be done at the rig: valves, tools with their minutes, parts with their price. */
const props = defineProps<{ view: PracticeView; busy: boolean }>();
const emit = defineEmits<{ act: [action: BenchAction] }>();
const rig = computed(() => props.view.exercise.system);
const valves = computed(() =>
  (Object.keys(VALVES) as ValveId[])
    .filter((id) => hasValve(rig.value, id) && (id !== 'pressure' || rig.value !== 'watermaker'))
    .map((id) => ({
      id,
      label: valveLabel(rig.value, id),
      choices: VALVES[id].positions.filter((to) => to !== 'none').map((value) => ({ value, title: value })),
    })),
);
const isBoat = computed(() => rig.value === 'watermaker');
const isHousehold = computed(() => !hasValve(rig.value, 'pump') && hasValve(rig.value, 'line'));
const turn = (valve: ValveId, to: string): void => emit('act', { kind: 'valve', valve, to: to as Valves[ValveId] });
const needsRaising = computed(() => props.view.state.valves.pressure === 'none');
</script>

<template>
  <section class="tools" aria-label="Valves and tools">
    <h2>Turn a valve, or take a tool</h2>
    <div class="valves">
      <div v-for="valve in valves" :key="valve.id" class="valve">
        <span>{{ valve.label }}</span>
        <Segments
          :model-value="view.state.valves[valve.id]"
          :label="valve.label"
          :choices="valve.choices"
          @update:model-value="turn(valve.id, $event)"
        />
      </div>
      <div v-if="isBoat" class="valve">
        <span>Pressure {{ view.state.valves.pressure === 'none' ? 'off' : view.state.valves.pressure }}</span>
        <div class="row">
          <template v-if="needsRaising">
            <button class="button small" type="button" :disabled="busy" @click="turn('pressure', 'working')">Bring it up slowly</button>
            <button
              class="button small"
              type="button"
              :disabled="busy"
              @click="emit('act', { kind: 'valve', valve: 'pressure', to: 'working', atOnce: true })"
            >
              At once
            </button>
          </template>
          <button
            v-else
            class="button small"
            type="button"
            :disabled="busy"
            @click="turn('pressure', view.state.valves.pressure === 'low' ? 'working' : 'low')"
          >
            {{ view.state.valves.pressure === 'low' ? 'Back to working' : 'Lower it' }}
          </button>
        </div>
      </div>
    </div>
    <div class="grid">
      <button
        v-for="tool in view.tools"
        :key="tool.id"
        type="button"
        class="tool"
        :aria-disabled="busy"
        @click="emit('act', { kind: 'tool', tool: tool.id })"
      >
        <span class="name"
          >{{ tool.label }} <small>{{ minutesText(tool.minutes) }}</small></span
        >
        <span class="says">{{ tool.says }}</span>
        <span v-if="tool.caution" class="caution">{{ tool.caution }}</span>
      </button>
      <button type="button" class="tool" :aria-disabled="busy" @click="emit('act', { kind: 'ask' })">
        <span class="name"
          >Ask the customer <small>{{ minutesText(0.5) }}</small></span
        >
        <span class="says">what was done, and when</span>
      </button>
      <button type="button" class="tool" :aria-disabled="busy" @click="emit('act', { kind: 'run', minutes: 60 })">
        <span class="name"
          >Let it run an hour <small>{{ minutesText(60) }}</small></span
        >
        <span class="says">unattended</span>
        <span v-if="view.state.valves.outlet === 'to tank'" class="caution">{{ HARMS.floor.caution }}</span>
      </button>
    </div>
    <details class="more">
      <summary>Fit a part, or put something right</summary>
      <p class="caution">{{ HARMS.pressure.caution }}</p>
      <p v-if="view.state.toRinseMinutes > 0" class="caution">{{ HARMS.preservative.caution }}</p>
      <div class="grid">
        <button
          v-for="one in view.repairs"
          :key="one.id"
          type="button"
          class="tool"
          :aria-disabled="busy"
          @click="emit('act', { kind: 'repair', repair: one.id })"
        >
          <span class="name"
            >{{ one.label }} <small>{{ minutesText(one.minutes) }}</small></span
          >
          <span class="says">{{ one.price > 0 ? `${one.price}${THIN}EUR` : 'no parts' }}{{ one.opens ? ' · opens a housing' : '' }}</span>
        </button>
      </div>
    </details>
    <details v-if="isHousehold || isBoat" class="more">
      <summary>Other things people do</summary>
      <div class="grid">
        <template v-if="isHousehold">
          <button v-if="view.state.out === 'none'" type="button" class="tool" @click="emit('act', { kind: 'takeOut', what: 'sediment' })">
            <span class="name"
              >Take the pre-filter out <small>{{ minutesText(6) }}</small></span
            >
            <span class="says">and run without it</span>
            <span class="caution">{{ HARMS.pressure.caution }}</span>
          </button>
          <button v-if="view.state.out !== 'all'" type="button" class="tool" @click="emit('act', { kind: 'takeOut', what: 'all' })">
            <span class="name"
              >Take all cartridges out <small>{{ minutesText(6) }}</small></span
            >
            <span class="says">carbon too</span>
            <span class="caution">{{ HARMS.chlorine.caution }}</span>
          </button>
          <button v-if="view.state.out !== 'none'" type="button" class="tool" @click="emit('act', { kind: 'takeOut', what: 'none' })">
            <span class="name"
              >Put the cartridges back <small>{{ minutesText(6) }}</small></span
            >
            <span class="says">as they were</span>
          </button>
          <button v-for="to in [25, 55]" :key="to" type="button" class="tool" @click="emit('act', { kind: 'warm', toC: to })">
            <span class="name"
              >Mix the feed to {{ to }}{{ THIN }}°C <small>{{ minutesText(3) }}</small></span
            >
            <span class="says">from the warm side</span>
            <span class="caution">{{ HARMS.hotFeed.caution }}</span>
          </button>
          <button v-if="view.state.feedC !== null" type="button" class="tool" @click="emit('act', { kind: 'warm', toC: null })">
            <span class="name"
              >Feed as it comes <small>{{ minutesText(3) }}</small></span
            >
            <span class="says">cold again</span>
          </button>
        </template>
        <button v-if="isBoat" type="button" class="tool" @click="emit('act', { kind: 'plugRelief' })">
          <span class="name"
            >Plug the relief valve <small>{{ minutesText(2) }}</small></span
          >
          <span class="says">to see whether it leaks by</span>
          <span class="caution">{{ HARMS.relief.caution }}</span>
        </button>
      </div>
    </details>
    <p class="muted small">
      A simulated rig, with meters that err, jugs that spill and something hidden. Nothing floods here but a figure.
    </p>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.tools { display: grid; gap: 11px; }
h2 { color: var(--muted); font-size: 14.5px; }
.valves { display: flex; flex-wrap: wrap; gap: 8px 18px; }
.valve { display: flex; align-items: center; gap: 8px; font-size: 13.8px; font-weight: 600; }
.valve :deep(button) { min-height: 34px; padding: 4px 11px; font-size: 13.8px; }
.grid { display: grid; grid-template-columns: repeat(auto-fill, minmax(205px, 1fr)); gap: 9px; }
.tool { display: grid; gap: 1px; align-content: start; text-align: left; background: var(--sheet); border: 1px solid var(--line); border-radius: 10px; padding: 8px 11px 9px; font: inherit; color: var(--ink); cursor: pointer; min-height: 52px; }
.tool:hover { border-color: var(--muted); }
.name { font-weight: 650; font-size: 14px; display: flex; justify-content: space-between; gap: 8px; }
.name small { font: 500 13px var(--typed); color: var(--muted); white-space: nowrap; }
.says { font-size: 13.2px; color: var(--muted); }
.tool .caution { font-size: 12.8px; line-height: 1.3; color: var(--warning); padding-top: 3px; }
.more { display: grid; gap: 9px; }
.more > .caution { border-left: 4px solid var(--warning); padding: 4px 0 4px 10px; font-weight: 550; margin: 8px 0; }
.more .grid { margin-top: 8px; }
summary { cursor: pointer; font-weight: 650; }
@media (max-width: 860px) { .valve :deep(button), summary { min-height: 44px; } .valve { flex: 1 1 100%; justify-content: space-between; } summary { display: flex; align-items: center; } .grid { grid-template-columns: repeat(auto-fill, minmax(150px, 1fr)); } }
</style>
