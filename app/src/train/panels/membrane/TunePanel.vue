<script setup lang="ts">
import type { Stage, StageOf } from '@yes-clear/core/stage';
import { formatQuantity, THIN, words } from '@yes-clear/core/quantity';
import { tunable, tuned, withSettings } from '@yes-clear/core/advice';
import { computed, ref, shallowRef, watch } from 'vue';
import { roundTop } from '../../../kit/chart/round';
import QuantityField from '../../../kit/QuantityField.vue';
import { useOpenSystem } from '../../../system/openSystem';
import FlowTube from './FlowTube.vue';
import TuneGauge from './TuneGauge.vue';
import { useRaised } from '../../useRaised';
import { useTrainEdits } from '../../useTrainEdits';

/** Three hands on three valves: pump, waste and recycle as sliders on the solved skid, gauges moving, targets marked. */
const current = useOpenSystem();
const edits = useTrainEdits(current);
const parts = computed(() => (current.system.value ? tunable(current.system.value) : null));
const solved = computed(() => current.solved.value?.report.solved ?? null);
const unit = computed(() => solved.value?.unit ?? null);
/** Pressure before the pump, bar. */
const beforePump = computed(() => {
  const at = solved.value?.stations.findIndex((station) => station.after === parts.value?.pump.id) ?? -1;
  return solved.value?.stations[at - 1]?.pressureBar ?? 0;
});
/** The water behind the pump. */
const pumped = computed(() => solved.value?.stations.find((station) => station.after === parts.value?.pump.id));
const units = computed(() => current.units.value);

const change = (label: string, next: (stage: Stage) => Stage): void => edits.stages(label, (stages) => stages.map(next));
const setPump = (changed: StageOf<'pump'>['pump']): void =>
  change('pump tuned', (stage) => (stage.kind === 'pump' && stage.id === parts.value?.pump.id ? { ...stage, pump: changed } : stage));
const setMembrane = (changes: Partial<StageOf<'membrane'>>): void =>
  change('valves tuned', (stage) =>
    stage.kind === 'membrane' && stage.id === parts.value?.membrane.id ? { ...stage, ...changes } : stage,
  );

/** The travel of a needle valve, by its logarithm: each turn opens it by the same share. */
const opening = (kvM3PerH: number) => ({ value: Math.log(kvM3PerH), low: Math.log(0.005), high: Math.log(5), step: 0.01 });
/** The pump's slider: speed of a centrifugal one, flow of a piston one; a booster has none. */
const pumpSlider = computed(() => {
  const pump = parts.value?.pump.pump;
  if (pump?.kind === 'centrifugal')
    return {
      label: 'Pump throttle',
      value: pump.speed,
      low: 0.3,
      high: 1.3,
      step: 0.005,
      text: `${Math.round(100 * pump.speed)}${THIN}%`,
      set: (speed: number) => setPump({ ...pump, speed }),
    };
  if (pump?.kind === 'displacement')
    return {
      label: 'Pump flow',
      value: pump.flowLPerH,
      low: 50,
      high: Math.max(1500, 2 * pump.flowLPerH),
      step: 5,
      text: flow(pump.flowLPerH),
      set: (flowLPerH: number) => setPump({ ...pump, flowLPerH }),
    };
  return null;
});
const wasteSlider = computed(() => {
  const valve = parts.value?.membrane.valve;
  if (valve?.kind === 'recovery')
    return {
      label: 'Concentrate valve',
      value: valve.recovery,
      low: 0.05,
      high: 0.85,
      step: 0.005,
      text: `${Math.round(100 * valve.recovery)}${THIN}% recovered`,
      set: (recovery: number) => setMembrane({ valve: { kind: 'recovery', recovery } }),
    };
  if (valve?.kind === 'pressure')
    return {
      label: 'Pressure valve',
      value: valve.bar,
      low: 1,
      high: 69,
      step: 0.5,
      text: pressure(valve.bar),
      set: (bar: number) => setMembrane({ valve: { kind: 'pressure', bar } }),
    };
  if (valve?.kind === 'needle')
    return {
      label: 'Concentrate valve',
      ...opening(valve.kvM3PerH),
      text: flow(unit.value?.concentrateLPerH ?? 0),
      set: (ln: number) => setMembrane({ valve: { kind: 'needle', kvM3PerH: Math.exp(ln) } }),
    };
  return null;
});
const recycleSlider = computed(() => {
  const { recycleLPerH = 0, recycleKv = null } = parts.value?.membrane ?? {};
  if (recycleKv !== null)
    return {
      label: 'Recycle valve',
      ...opening(recycleKv),
      text: flow(unit.value?.recycleLPerH ?? 0),
      set: (ln: number) => setMembrane({ recycleKv: Math.exp(ln) }),
    };
  return {
    label: 'Recycle valve',
    value: recycleLPerH,
    low: 0,
    high: Math.max(2500, 2 * recycleLPerH),
    step: 10,
    text: flow(recycleLPerH),
    set: (next: number) => setMembrane({ recycleLPerH: next }),
  };
});
const sliders = computed(() => [pumpSlider.value, wasteSlider.value, recycleSlider.value].filter((one) => one !== null));

function flow(value: number): string {
  return formatQuantity(value, 'flowLPerH', units.value).text;
}
function pressure(value: number): string {
  return formatQuantity(value, 'pressureBar', units.value).text;
}
/** Targets: what stands now until they are typed. */
const wanted = ref<{ permeateLPerH: number | null; recovery: number | null; recycleLPerH: number | null }>({
  permeateLPerH: null,
  recovery: null,
  recycleLPerH: null,
});
const targets = computed(() => ({
  permeateLPerH: wanted.value.permeateLPerH ?? unit.value?.permeateLPerH ?? 0,
  recovery: wanted.value.recovery ?? unit.value?.recovery ?? 0,
  recycleLPerH: wanted.value.recycleLPerH ?? unit.value?.recycleLPerH ?? 0,
}));
const stopped = ref<string | null>(null);
const raised = useRaised(current);
/** What the settings found would raise; null where nothing, or nothing was asked. */
const warned = shallowRef<ReturnType<typeof raised> | null>(null);
// Another wish asks anew; a figure that a newer solve moved by a hair does not.
watch(wanted, () => (warned.value = null), { deep: true });
function setForMe(): void {
  const { system, water } = current;
  if (!system.value || !water.value?.ok) return;
  const train = current.solved.value?.report.train ?? system.value.train;
  const settings = tuned({ ...system.value, train }, water.value.value.water, targets.value);
  stopped.value = settings.ok ? null : settings.error.message;
  if (!settings.ok) return;
  const raises = raised((stages) => withSettings(stages, settings.value));
  if (raises.some(({ id }) => !warned.value?.some((one) => one.id === id))) {
    // Said before it is done; pressed again it is done all the same.
    warned.value = raises;
    return;
  }
  warned.value = null;
  edits.stages('tuned', (stages) => withSettings(stages, settings.value));
}
const gauges = computed(() => {
  const u = unit.value;
  if (!u) return [];
  const top = roundTop(Math.max(6, 1.1 * u.feedPressureBar));
  return [
    { label: 'Before the pump', value: beforePump.value, most: 10, text: pressure(beforePump.value), target: null },
    { label: 'Feed', value: u.feedPressureBar, most: top, text: pressure(u.feedPressureBar), target: null },
    { label: 'Concentrate', value: u.concentratePressureBar, most: top, text: pressure(u.concentratePressureBar), target: null },
  ];
});
/** Flow meters on one scale, so that they can be compared at a glance. */
const meters = computed(() => {
  const u = unit.value;
  if (!u) return [];
  const drainTarget = targets.value.permeateLPerH * (1 / Math.max(0.01, targets.value.recovery) - 1);
  const most = roundTop(
    Math.max(u.permeateLPerH, u.concentrateLPerH, u.recycleLPerH, targets.value.permeateLPerH, drainTarget, targets.value.recycleLPerH),
  );
  return [
    { label: 'Product', value: u.permeateLPerH, text: flow(u.permeateLPerH), target: targets.value.permeateLPerH, most },
    { label: 'To the drain', value: u.concentrateLPerH, text: flow(u.concentrateLPerH), target: drainTarget, most },
    { label: 'Led back', value: u.recycleLPerH, text: flow(u.recycleLPerH), target: targets.value.recycleLPerH, most },
  ];
});
const recovered = computed(
  () =>
    unit.value && {
      text: `${(100 * unit.value.recovery).toFixed(unit.value.recovery < 0.2 ? 1 : 0)}${THIN}%`,
      share: unit.value.recovery,
      target: targets.value.recovery,
    },
);
const mixture = computed(() =>
  pumped.value && unit.value && unit.value.recycleLPerH > 0 ? words(units.value).water(pumped.value.state.ec25UScm) : null,
);
</script>

<template>
  <section v-if="parts && unit" class="tune" aria-label="Tune">
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
    <div class="instruments">
      <div class="gauges"><TuneGauge v-for="gauge in gauges" :key="gauge.label" v-bind="gauge" /></div>
      <div class="meters"><FlowTube v-for="meter in meters" :key="meter.label" v-bind="meter" /></div>
      <figure v-if="recovered" class="recovered" :aria-label="`Recovery ${recovered.text}`">
        <strong>{{ recovered.text }}</strong>
        <span class="bar"><i :style="{ width: `${100 * recovered.share}%` }" /><b :style="{ left: `${100 * recovered.target}%` }" /></span>
        <span>of the feed becomes product</span>
      </figure>
    </div>
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
      <button class="button primary" type="button" @click="setForMe">{{ warned ? 'Set it all the same' : 'Set it for me' }}</button>
    </div>
    <p v-if="stopped" class="stopped" role="alert">{{ stopped }}</p>
    <p v-if="warned" class="stopped" role="alert">That setting raises: {{ warned.map(({ title }) => title).join('; ') }}.</p>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.tune { padding: 12px 14px; display: grid; gap: 12px; }
.head { display: flex; gap: 14px; align-items: baseline; flex-wrap: wrap; }
.hands { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 18px; }
.hand { display: grid; gap: 4px; font-size: 14px; }
.hand span { display: flex; justify-content: space-between; font-weight: 600; color: var(--muted); }
.hand b { color: var(--ink); }
.hand input { accent-color: var(--action); width: 100%; min-height: 28px; }
.instruments { display: grid; grid-template-columns: minmax(0, 3fr) minmax(0, 2.6fr) minmax(120px, 1fr); gap: 18px; align-items: end; }
.gauges, .meters { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 10px; align-items: end; }
.recovered { margin: 0; display: grid; gap: 5px; font-size: 13.3px; color: var(--muted); align-self: center; }
.recovered strong { font-size: 26px; color: var(--ink); }
.bar { position: relative; height: 10px; border: 1.5px solid var(--ink); border-radius: 5px; background: var(--sheet); }
.bar i { position: absolute; inset: 0 auto 0 0; background: var(--action); border-radius: 3px; }
.bar b { position: absolute; top: -4px; bottom: -4px; width: 3px; margin-left: -1.5px; background: var(--good); }
.targets { display: grid; grid-template-columns: repeat(3, minmax(0, 180px)) auto; gap: 12px; align-items: start; border-top: 1px solid var(--hair); padding-top: 10px; }
.targets .button { margin-top: 20px; justify-self: start; }
.stopped { color: var(--bad); font-weight: 550; font-size: 13.6px; }
@media (max-width: 860px) { .hands, .targets, .instruments { grid-template-columns: minmax(0, 1fr); } .targets .button { margin-top: 0; } }
</style>
