<script setup lang="ts">
import type { Stage, StageOf } from '@yes-clear/core/file';
import { formatQuantity, THIN } from '@yes-clear/core/quantity';
import { tunable, tunedStages, words } from '@yes-clear/core/train';
import { computed, ref } from 'vue';
import QuantityField from '../kit/QuantityField.vue';
import { useCurrentSystem } from '../store/current';
import TuneGauge from './TuneGauge.vue';

/** Three hands on three valves: pump, waste and recycle as sliders on the solved skid, gauges moving, targets marked. */
const current = useCurrentSystem();
const parts = computed(() => (current.system.value ? tunable(current.system.value) : null));
const unit = computed(() => (current.report.value?.ok ? current.report.value.value.solved.unit : null));
const units = computed(() => current.units.value);

const change = (label: string, next: (stage: Stage) => Stage): void =>
  current.edit(label, (system) => ({ ...system, train: { ...system.train, stages: system.train.stages.map(next) } }));
const setPump = (changes: object): void =>
  change('pump tuned', (stage) => (stage.id === parts.value?.pump.id ? ({ ...stage, pump: { ...(stage as StageOf<'pump'>).pump, ...changes } } as Stage) : stage));
const setMembrane = (changes: Partial<StageOf<'membrane'>>): void =>
  change('valves tuned', (stage) => (stage.id === parts.value?.membrane.id ? ({ ...stage, ...changes } as Stage) : stage));

/** The pump's slider: speed of a centrifugal one, flow of a piston one; a booster has none. */
const pumpSlider = computed(() => {
  const pump = parts.value?.pump.pump;
  if (pump?.kind === 'centrifugal') return { label: 'Pump throttle', value: pump.speed, low: 0.3, high: 1.3, step: 0.005, text: `${Math.round(100 * pump.speed)}${THIN}%`, set: (speed: number) => setPump({ speed }) };
  if (pump?.kind === 'displacement') return { label: 'Pump flow', value: pump.flowLPerH, low: 50, high: Math.max(1500, 2 * pump.flowLPerH), step: 5, text: flow(pump.flowLPerH), set: (flowLPerH: number) => setPump({ flowLPerH }) };
  return null;
});
const wasteSlider = computed(() => {
  const valve = parts.value?.membrane.valve;
  if (valve?.kind === 'recovery') return { label: 'Concentrate valve', value: valve.recovery, low: 0.05, high: 0.85, step: 0.005, text: `${Math.round(100 * valve.recovery)}${THIN}% recovered`, set: (recovery: number) => setMembrane({ valve: { kind: 'recovery', recovery } }) };
  if (valve?.kind === 'pressure') return { label: 'Pressure valve', value: valve.bar, low: 1, high: 69, step: 0.5, text: pressure(valve.bar), set: (bar: number) => setMembrane({ valve: { kind: 'pressure', bar } }) };
  if (valve?.kind === 'needle') return { label: 'Concentrate valve', value: valve.kvM3PerH, low: 0.005, high: 3, step: 0.005, text: `Kv ${valve.kvM3PerH.toFixed(3)}`, set: (kvM3PerH: number) => setMembrane({ valve: { kind: 'needle', kvM3PerH } }) };
  return null;
});
const recycleSlider = computed(() => ({
  label: 'Recycle valve',
  value: parts.value?.membrane.recycleLPerH ?? 0,
  low: 0,
  high: Math.max(2500, 2 * (parts.value?.membrane.recycleLPerH ?? 0)),
  step: 10,
  text: flow(parts.value?.membrane.recycleLPerH ?? 0),
  set: (recycleLPerH: number) => setMembrane({ recycleLPerH }),
}));
const sliders = computed(() => [pumpSlider.value, wasteSlider.value, recycleSlider.value].filter((one) => one !== null));

function flow(value: number): string {
  return formatQuantity(value, 'flowLPerH', units.value).text;
}
function pressure(value: number): string {
  return formatQuantity(value, 'pressureBar', units.value).text;
}
/** Targets: what stands now until they are typed. */
const wanted = ref<{ permeateLPerH: number | null; recovery: number | null; recycleLPerH: number | null }>({ permeateLPerH: null, recovery: null, recycleLPerH: null });
const targets = computed(() => ({
  permeateLPerH: wanted.value.permeateLPerH ?? unit.value?.permeateLPerH ?? 0,
  recovery: wanted.value.recovery ?? unit.value?.recovery ?? 0,
  recycleLPerH: wanted.value.recycleLPerH ?? unit.value?.recycleLPerH ?? 0,
}));
const stopped = ref<string | null>(null);
function setForMe(): void {
  const { system, water } = current;
  if (!system.value || !water.value?.ok) return;
  const tuned = tunedStages(system.value, water.value.value.water, targets.value);
  stopped.value = tuned.ok ? null : tuned.error.message;
  if (tuned.ok) current.edit('tuned', (s) => ({ ...s, train: { ...s.train, stages: [...tuned.value] } }));
}
const gauges = computed(() => {
  const u = unit.value;
  if (!u) return [];
  const inlet = current.report.value?.ok ? (current.report.value.value.solved.stations.find((station) => station.kind === 'pump')?.pressureBar ?? 0) : 0;
  return [
    { label: 'Feed', value: u.feedPressureBar, most: Math.max(10, 1.5 * inlet), text: pressure(u.feedPressureBar), target: null },
    { label: 'Concentrate', value: u.concentratePressureBar, most: Math.max(10, 1.5 * inlet), text: pressure(u.concentratePressureBar), target: null },
    { label: 'Product', value: u.permeateLPerH, most: 1.6 * Math.max(u.permeateLPerH, targets.value.permeateLPerH), text: flow(u.permeateLPerH), target: targets.value.permeateLPerH },
    { label: 'To the drain', value: u.concentrateLPerH, most: 1.6 * Math.max(u.concentrateLPerH, 1), text: flow(u.concentrateLPerH), target: null },
    { label: 'Recovery', value: u.recovery, most: 1, text: `${Math.round(100 * u.recovery)}${THIN}%`, target: targets.value.recovery },
  ];
});
const mixture = computed(() => {
  const solved = current.report.value?.ok ? current.report.value.value.solved : null;
  const pump = solved?.stations.find((station) => station.kind === 'pump');
  return pump && unit.value && unit.value.recycleLPerH > 0 ? words(units.value).water(pump.state.ec25UScm) : null;
});
</script>

<template>
  <section v-if="parts && unit" class="sheet tune" aria-label="Tune">
    <div class="head">
      <h2>Tune</h2>
      <p class="muted small">
        Each valve moves the other two.<template v-if="mixture">
          A meter at the pump reads the mixture, {{ mixture }}, not the tap.</template
        >
      </p>
    </div>
    <div class="hands">
      <label v-for="slider in sliders" :key="slider.label" class="hand">
        <span
          >{{ slider.label }} <b>{{ slider.text }}</b></span
        >
        <input
          type="range"
          :min="slider.low"
          :max="slider.high"
          :step="slider.step"
          :value="slider.value"
          :aria-label="slider.label"
          :aria-valuetext="slider.text"
          @input="slider.set(Number(($event.target as HTMLInputElement).value))"
        />
      </label>
    </div>
    <div class="gauges"><TuneGauge v-for="gauge in gauges" :key="gauge.label" v-bind="gauge" /></div>
    <div class="targets">
      <QuantityField
        label="Product wanted"
        dimension="flowLPerH"
        :low="1"
        :units="units"
        :model-value="targets.permeateLPerH"
        @update:model-value="wanted.permeateLPerH = $event"
      />
      <QuantityField
        label="Recovery wanted"
        dimension="fraction"
        unit="%"
        :low="0.02"
        :high="0.9"
        :units="units"
        :model-value="targets.recovery"
        @update:model-value="wanted.recovery = $event"
      />
      <QuantityField
        label="Recycle wanted"
        dimension="flowLPerH"
        :units="units"
        :model-value="targets.recycleLPerH"
        @update:model-value="wanted.recycleLPerH = $event"
      />
      <button class="button primary" type="button" @click="setForMe">Set it for me</button>
    </div>
    <p v-if="stopped" class="stopped" role="alert">{{ stopped }}</p>
  </section>
</template>

<style scoped>
.tune { margin-top: 12px; padding: 12px 14px; display: grid; gap: 12px; }
.head { display: flex; gap: 14px; align-items: baseline; flex-wrap: wrap; }
.hands { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 18px; }
.hand { display: grid; gap: 4px; font-size: 14px; }
.hand span { display: flex; justify-content: space-between; font-weight: 600; color: var(--muted); }
.hand b { color: var(--ink); }
.hand input { accent-color: var(--action); width: 100%; min-height: 28px; }
.gauges { display: grid; grid-template-columns: repeat(5, minmax(0, 1fr)); gap: 10px; }
.targets { display: grid; grid-template-columns: repeat(3, minmax(0, 180px)) auto; gap: 12px; align-items: start; border-top: 1px solid var(--hair); padding-top: 10px; }
.targets .button { margin-top: 20px; justify-self: start; }
.stopped { color: var(--bad); font-weight: 550; font-size: 13.6px; }
@media (max-width: 860px) { .hands, .targets { grid-template-columns: 1fr; } .gauges { grid-template-columns: repeat(2, 1fr); } .targets .button { margin-top: 0; } }
</style>
