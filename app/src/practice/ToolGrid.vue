<script setup lang="ts">
import { ACTION_MINUTES, hasValve, HARMS, VALVES, valveLabel, type BenchAction, type ValveId, type Valves } from '@yes-clear/core/fault';
import { THIN } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import Segments from '../kit/Segments.vue';
import type { PracticeView } from '../worker/practiceBench';
import ToolCard from './ToolCard.vue';

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
/** A card of the grid, and what it does. */
interface Card {
  readonly id: string;
  readonly shown: { readonly label: string; readonly minutes: number; readonly says: string; readonly caution?: string | null };
  readonly action: BenchAction;
}
/** An hour unattended. */
const LONG_MINUTES = 60;
const tools = computed((): Card[] => [
  ...props.view.tools.map(({ id, label, minutes, says, caution }): Card => ({
    id,
    shown: { label, minutes, says, caution },
    action: { kind: 'tool', tool: id },
  })),
  {
    id: 'ask',
    shown: { label: 'Ask the customer', minutes: ACTION_MINUTES.ask, says: 'what was done, and when' },
    action: { kind: 'ask' },
  },
  {
    id: 'run',
    shown: {
      label: 'Let it run an hour',
      minutes: LONG_MINUTES,
      says: 'unattended',
      caution: props.view.state.valves.outlet === 'to tank' ? HARMS.floor.caution : null,
    },
    action: { kind: 'run', minutes: LONG_MINUTES },
  },
]);
const repairs = computed((): Card[] =>
  props.view.repairs.map(({ id, label, minutes, price, opens }) => ({
    id,
    shown: { label, minutes, says: `${price > 0 ? `${price}${THIN}EUR` : 'no parts'}${opens ? ' · opens a housing' : ''}` },
    action: { kind: 'repair', repair: id },
  })),
);
/** Cartridges in and out, and warm water: with what each may do. */
const takenOut = (what: PracticeView['state']['out'], label: string, says: string, caution: string | null = null): Card => ({
  id: `out ${what}`,
  shown: { label, minutes: ACTION_MINUTES.takeOut, says, caution },
  action: { kind: 'takeOut', what },
});
const warmed = (toC: number | null, label: string, says: string, caution: string | null = null): Card => ({
  id: `warm ${toC}`,
  shown: { label, minutes: ACTION_MINUTES.warm, says, caution },
  action: { kind: 'warm', toC },
});
const others = computed((): Card[] => {
  const { out, feedC } = props.view.state;
  const when = (there: boolean, card: Card): Card[] => (there ? [card] : []);
  if (isBoat.value)
    return [
      {
        id: 'plug',
        shown: {
          label: 'Plug the relief valve',
          minutes: ACTION_MINUTES.plugRelief,
          says: 'to see whether it leaks by',
          caution: HARMS.relief.caution,
        },
        action: { kind: 'plugRelief' },
      },
    ];
  if (!isHousehold.value) return [];
  return [
    ...when(out === 'none', takenOut('sediment', 'Take the pre-filter out', 'and run without it', HARMS.pressure.caution)),
    ...when(out !== 'all', takenOut('all', 'Take all cartridges out', 'carbon too', HARMS.chlorine.caution)),
    ...when(out !== 'none', takenOut('none', 'Put the cartridges back', 'as they were')),
    ...[25, 55].map((toC) => warmed(toC, `Mix the feed to ${toC}${THIN}°C`, 'from the warm side', HARMS.hotFeed.caution)),
    ...when(feedC !== null, warmed(null, 'Feed as it comes', 'cold again')),
  ];
});
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
      <ToolCard v-for="card in tools" :key="card.id" v-bind="card.shown" :busy="busy" @act="emit('act', card.action)" />
    </div>
    <details class="more">
      <summary>Fit a part, or put something right</summary>
      <p class="caution">{{ HARMS.pressure.caution }}</p>
      <p v-if="view.state.toRinseMinutes > 0" class="caution">{{ HARMS.preservative.caution }}</p>
      <div class="grid">
        <ToolCard v-for="card in repairs" :key="card.id" v-bind="card.shown" :busy="busy" @act="emit('act', card.action)" />
      </div>
    </details>
    <details v-if="others.length > 0" class="more">
      <summary>Other things people do</summary>
      <div class="grid">
        <ToolCard v-for="card in others" :key="card.id" v-bind="card.shown" :busy="busy" @act="emit('act', card.action)" />
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
.more { display: grid; gap: 9px; }
.more > .caution { border-left: 4px solid var(--warning); padding: 4px 0 4px 10px; font-weight: 550; margin: 8px 0; }
.more .grid { margin-top: 8px; }
summary { cursor: pointer; font-weight: 650; }
@media (max-width: 860px) { .valve :deep(button), summary { min-height: 44px; } .valve { flex: 1 1 100%; justify-content: space-between; } summary { display: flex; align-items: center; } .grid { grid-template-columns: repeat(auto-fill, minmax(150px, 1fr)); } }
</style>
