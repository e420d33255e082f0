<script setup lang="ts">
import { CARBON_MEDIA, ELEMENT_CLASSES, RESIN_CLASSES, type Stage, type System } from '@yes-clear/core/file';
import { RESIN_ROWS } from '@yes-clear/core/exchange';
import { ELEMENT_ROWS } from '@yes-clear/core/membrane';
import { formatQuantity } from '@yes-clear/core/quantity';
import type { SolvedTrain } from '@yes-clear/core/train';
import { computed } from 'vue';
import QuantityField from '../kit/QuantityField.vue';

/** The fields of the selected stage, and the few figures that belong to it alone. */
const props = defineProps<{ stage: Stage; system: System; solved: SolvedTrain | null; first: boolean; last: boolean }>();
const emit = defineEmits<{ change: [changes: Partial<Stage>]; source: [changes: Partial<System['source']>]; move: [by: number]; remove: []; close: [] }>();

const units = computed(() => props.system.units);
const set = (changes: object): void => emit('change', changes as Partial<Stage>);
const ELEMENTS = ELEMENT_CLASSES.map((key) => ({ title: `${key} · ${ELEMENT_ROWS[key].nominalFlowGpd} gal/day`, value: key }));
const ARRANGEMENTS = [
  { title: 'One element', value: 'single' },
  { title: 'Two in series on the waste', value: 'series' },
  { title: 'Two side by side', value: 'parallel' },
];
const RESINS = RESIN_CLASSES.map((key) => ({ title: RESIN_ROWS[key].label, value: key }));
const MEDIA = CARBON_MEDIA.map((key) => ({ title: key === 'block' ? 'Carbon block' : 'Granular carbon', value: key }));

/** Read-outs of the stage, from the solved train. */
const facts = computed<readonly (readonly [string, string])[]>(() => {
  const solved = props.solved;
  if (!solved) return [];
  if (props.stage.kind === 'membrane' && solved.unit) {
    const unit = solved.unit;
    return [
      ['Salt held back', unit.rejection === null ? '–' : formatQuantity(unit.rejection, 'fraction', units.value).text],
      ['Pressure at the membrane', formatQuantity(unit.feedPressureBar, 'pressureBar', units.value).text],
      ['Flux', unit.ranks.map((rank) => rank.fluxLmh.toFixed(1)).join(' and ') + ' L/m²h'],
      ['Share taken as product', formatQuantity(unit.recovery, 'fraction', units.value).text],
    ];
  }
  if (props.stage.kind === 'resin') {
    const resin = solved.resins.find((candidate) => candidate.stageId === props.stage.id);
    if (!resin) return [];
    return [
      ['Capacity usable, anion side', formatQuantity(resin.utilisation.anion.utilisation, 'fraction', units.value).text],
      ['Capacity usable, cation side', formatQuantity(resin.utilisation.cation.utilisation, 'fraction', units.value).text],
      ['Taken up so far', formatQuantity(Math.min(1, resin.usedShare), 'fraction', units.value).text],
    ];
  }
  if (props.stage.kind === 'carbon') {
    const carbon = solved.carbons.find((candidate) => candidate.stageId === props.stage.id);
    if (!carbon) return [];
    return [
      ['Contact time', `${carbon.state.contactTimeS.toFixed(0)} s`],
      ['Lasts, by chlorine', carbon.state.litresLeft === null ? 'nothing to remove' : `${formatQuantity(carbon.state.litresLeft, 'volumeL', units.value).text} of feed`],
    ];
  }
  return [];
});
</script>

<template>
  <section class="sheet inspector" :aria-label="stage.name">
    <div class="head">
      <input
        class="title"
        :value="stage.name"
        aria-label="Name of the stage"
        maxlength="40"
        @change="set({ name: ($event.target as HTMLInputElement).value.trim() || stage.name })"
      />
      <button class="button small plain" type="button" @click="emit('close')">Close</button>
    </div>
    <div class="fields">
      <template v-if="stage.kind === 'sediment' || stage.kind === 'carbon'">
        <QuantityField
          v-if="stage.kind === 'sediment'"
          look="row"
          label="Pore size, µm"
          dimension="count"
          :low="0.1"
          :high="200"
          :units="units"
          :model-value="stage.micron"
          @update:model-value="set({ micron: $event })"
        />
        <template v-else>
          <v-select :items="MEDIA" :model-value="stage.medium" aria-label="Medium" @update:model-value="set({ medium: $event })" />
          <QuantityField
            look="row"
            label="Volume of carbon"
            dimension="volumeL"
            unit="L"
            :low="0.05"
            :high="1000"
            :units="units"
            :model-value="stage.volumeL"
            @update:model-value="set({ volumeL: $event })"
          />
          <QuantityField
            look="row"
            label="Rated for"
            dimension="volumeL"
            :low="1"
            :high="10000000"
            :units="units"
            :model-value="stage.ratedL"
            @update:model-value="set({ ratedL: $event })"
          />
        </template>
        <QuantityField
          look="row"
          label="Clogged by"
          dimension="fraction"
          unit="%"
          :high="0.95"
          :units="units"
          :model-value="stage.loading"
          @update:model-value="set({ loading: $event })"
        />
        <QuantityField
          look="row"
          label="Loss when clean, 1 gal/min"
          dimension="pressureBar"
          :high="1"
          :units="units"
          :model-value="stage.cleanLossBar"
          @update:model-value="set({ cleanLossBar: $event })"
        />
      </template>
      <template v-else-if="stage.kind === 'membrane'">
        <v-select
          :items="ELEMENTS"
          :model-value="stage.elementClass"
          aria-label="Element class"
          @update:model-value="set({ elementClass: $event })"
        />
        <v-select
          :items="ARRANGEMENTS"
          :model-value="stage.arrangement"
          aria-label="Arrangement"
          @update:model-value="set({ arrangement: $event })"
        />
        <QuantityField
          look="row"
          label="Line pressure"
          dimension="pressureBar"
          :units="units"
          :model-value="system.source.linePressureBar"
          @update:model-value="$event !== null && emit('source', { linePressureBar: $event })"
        />
        <QuantityField
          look="row"
          label="Restrictor length"
          dimension="lengthMm"
          unit="cm"
          :low="10"
          :high="2000"
          :units="units"
          :model-value="stage.restrictor.lengthMm"
          @update:model-value="set({ restrictor: { ...stage.restrictor, lengthMm: $event } })"
        />
        <QuantityField
          look="row"
          label="Restrictor bore"
          dimension="lengthMm"
          unit="mm"
          :low="0.2"
          :high="3"
          :units="units"
          :model-value="stage.restrictor.boreMm"
          @update:model-value="set({ restrictor: { ...stage.restrictor, boreMm: $event } })"
        />
        <details>
          <summary>Ageing</summary>
          <QuantityField
            look="row"
            label="Output against new"
            dimension="fraction"
            unit="%"
            :low="0.05"
            :high="5"
            :units="units"
            :model-value="stage.waterFactor"
            @update:model-value="set({ waterFactor: $event })"
          />
          <QuantityField
            look="row"
            label="Salt passage against new"
            dimension="fraction"
            unit="%"
            :low="0.05"
            :high="100"
            :units="units"
            :model-value="stage.saltFactor"
            @update:model-value="set({ saltFactor: $event })"
          />
        </details>
      </template>
      <template v-else-if="stage.kind === 'resin'">
        <v-select :items="RESINS" :model-value="stage.resinClass" aria-label="Resin" @update:model-value="set({ resinClass: $event })" />
        <QuantityField
          look="row"
          label="Volume of resin"
          dimension="volumeL"
          unit="L"
          :low="0.05"
          :high="1000"
          :units="units"
          :model-value="stage.volumeL"
          @update:model-value="set({ volumeL: $event })"
        />
        <QuantityField
          look="row"
          label="Depth of the bed"
          dimension="lengthMm"
          unit="cm"
          :low="50"
          :high="3000"
          :units="units"
          :model-value="stage.depthMm"
          @update:model-value="set({ depthMm: $event })"
        />
        <QuantityField
          look="row"
          label="Packing (0.9 tight, 0.75 loose)"
          dimension="fraction"
          unit="%"
          :low="0.5"
          :high="1"
          :units="units"
          :model-value="stage.packing"
          @update:model-value="set({ packing: $event })"
        />
      </template>
      <template v-else>
        <QuantityField
          look="row"
          label="Volume"
          dimension="volumeL"
          :low="0.1"
          :high="100000"
          :units="units"
          :model-value="stage.volumeL"
          @update:model-value="set({ volumeL: $event })"
        />
        <QuantityField
          look="row"
          label="Height above the unit"
          dimension="lengthMm"
          unit="m"
          :high="50000"
          :units="units"
          :model-value="stage.liftM * 1000"
          @update:model-value="set({ liftM: ($event ?? 0) / 1000 })"
        />
        <label class="check"
          ><input type="checkbox" :checked="stage.openToAir" @change="set({ openToAir: ($event.target as HTMLInputElement).checked })" />
          Open to the air</label
        >
      </template>
      <label v-if="'fittedOn' in stage" class="date"
        ><span>Fitted on</span
        ><input type="date" :value="stage.fittedOn ?? ''" @change="set({ fittedOn: ($event.target as HTMLInputElement).value || null })"
      /></label>
    </div>
    <dl v-if="facts.length > 0" class="facts">
      <template v-for="[name, text] in facts" :key="name"
        ><dt>{{ name }}</dt>
        <dd>{{ text }}</dd></template
      >
    </dl>
    <div class="actions">
      <button class="button small" type="button" :disabled="first" aria-label="Move one place towards the tap" @click="emit('move', -1)">
        ← Earlier
      </button>
      <button class="button small" type="button" :disabled="last" aria-label="Move one place away from the tap" @click="emit('move', 1)">
        Later →
      </button>
      <button class="button small danger" type="button" @click="emit('remove')">Remove</button>
    </div>
  </section>
</template>

<style scoped>
.inspector { padding: 10px 12px 12px; }
.head { display: flex; justify-content: space-between; align-items: center; gap: 8px; margin-bottom: 8px; }
.title { flex: 1; min-width: 0; font: 700 15px var(--digits); border: 1px solid transparent; background: transparent; color: var(--ink); border-radius: 7px; padding: 3px 6px; margin-left: -6px; }
.title:hover, .title:focus { border-color: var(--line); outline: none; background: var(--sheet); }
.fields { display: grid; gap: 6px; }
details summary { cursor: pointer; color: var(--muted); font-size: 13.3px; font-weight: 600; padding: 3px 0; }
details .quantity { margin-top: 5px; }
.check { display: flex; gap: 8px; align-items: center; font-size: 13.6px; padding: 4px 0; }
.date { display: grid; grid-template-columns: minmax(0, 1fr) 132px; align-items: center; font-size: 13.6px; color: var(--muted); }
.date input { font: 500 13px var(--digits); border: 1px solid var(--line); border-radius: 8px; background: var(--sheet); color: var(--ink); min-height: 30px; padding: 0 6px; width: 100%; }
.facts { display: grid; grid-template-columns: 1fr auto; gap: 4px 10px; margin: 10px 0 0; padding-top: 9px; border-top: 1px solid var(--hair); font-size: 13.4px; }
dt { color: var(--muted); }
dd { margin: 0; text-align: right; font-weight: 600; }
.actions { display: flex; gap: 6px; margin-top: 12px; flex-wrap: wrap; }
</style>
