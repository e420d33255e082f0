<script setup lang="ts">
import {
  USUAL_LINE_PRESSURE,
  emptySample,
  isChloramineUntested,
  sampleSchema,
  withUntestedChloramine,
  type Kit,
  type Sample,
} from '@yes-clear/core/file';
import { boundsOf, formatIn, formatQuantity, THIN, inSentence } from '@yes-clear/core/quantity';
import { sampleWater, seasonSpan } from '@yes-clear/core/train';
import { settleWater } from '@yes-clear/core/water';
import { computed } from 'vue';
import FindingCard from '../kit/FindingCard.vue';
import NameField from '../kit/NameField.vue';
import QuantityField from '../kit/QuantityField.vue';
import SeasonSpan from './SeasonSpan.vue';
import SiltTest from './SiltTest.vue';
import { CHARACTER_CHOICES, needed, useSample } from './useSample';
import { PLAIN_UNITS } from './meterScales';

/** What belongs to the place rather than to one sample: pressure, disinfectant, the year, and a second water. */
const { current, source, sample, isAssumed, confirm, set, setSource } = useSample();
const units = computed(() => current.units.value);
const instruments = computed(() => current.system.value?.instruments ?? []);
const span = computed(() => (source.value ? seasonSpan(source.value, instruments.value) : null));
const dots = computed(() =>
  (source.value?.samples ?? []).flatMap((one) => {
    const water = sampleWater(one, instruments.value);
    const state = water.ok ? settleWater(water.value.water) : water;
    return state.ok
      ? [
          {
            id: one.id,
            day: one.takenOn,
            ec25UScm: state.value.ec25UScm,
            temperatureC: one.temperatureC,
            current: one.id === source.value?.sampleId,
          },
        ]
      : [];
  }),
);
const setSeason = (label: string, changes: object): void => setSource(label, { season: { ...source.value!.season, ...changes } });

const second = computed(() => source.value?.second ?? null);
const secondWater = computed(() => (second.value ? sampleWater(second.value.sample, instruments.value) : null));
const secondState = computed(() => {
  const state = secondWater.value?.ok ? settleWater(secondWater.value.value.water) : null;
  return state?.ok ? state.value : null;
});
const mixed = current.tapState;
function addSecond(): void {
  const like = sample.value;
  if (!like) return;
  const other: Sample = {
    ...emptySample('second', current.now.value.slice(0, 10), like),
    character: 'rain',
    way: 'kit',
    reading: null,
    chlorineMgL: 0,
    chloramineMgL: 0,
  };
  const meter = instruments.value.find((one) => one.id === other.instrumentId);
  // Rain of its usual strength, in the meter's own unit, until something is measured.
  setSource('second water', {
    second: { name: 'Rain barrel', share: 0.3, sample: { ...other, reading: meter?.scale.kind === 'conductivity' ? 20 : 10 } },
  });
}
const setSecond = (label: string, changes: object): void => setSource(label, { second: { ...source.value!.second!, ...changes } });
const setOther = (label: string, changes: Partial<Sample>): void =>
  setSecond(label, { sample: { ...source.value!.second!.sample, ...changes } });
const setOtherKit = (label: string, changes: Partial<Kit>): void =>
  setOther(label, { kit: { ...source.value!.second!.sample.kit, ...changes } });
/** Total chlorine is what a strip shows: what of it is not free is chloramine. */
const { high: MOST_CHLORAMINE_MG_L = Infinity } = boundsOf(sampleSchema.shape.chloramineMgL);
const setTotalChlorine = (totalMgL: number): void =>
  set('total chlorine', { chloramineMgL: Number(Math.max(0, totalMgL - sample.value!.chlorineMgL).toFixed(6)) });
const chloramineNote = computed(() => {
  const chloramine = sample.value?.chloramineMgL ?? 0;
  if (untested.value) return 'usual amount, 1 to 4 mg/L: test total chlorine';
  return chloramine > 0 ? `${formatQuantity(chloramine, 'concentrationMgL', units.value).text} of it is chloramine` : '';
});
/** Chloramine somebody has been told of and nobody tested: the usual amount stands, marked as assumed. */
const untested = computed(() => source.value !== null && isChloramineUntested(source.value));
const chloramineUnknown = (): void =>
  current.edit('chloramine, amount not known', (s) => ({ ...s, source: withUntestedChloramine(s.source) }));
const ecText = (ec: number): string => formatIn(ec, 'conductivityUScm', 'µS/cm').text;
</script>

<template>
  <template v-if="source && sample">
    <section class="sheet panel stack">
      <div class="field-grid">
        <label class="labelled"
          ><span>Name of the supply</span
          ><NameField
            class="plain-input"
            label="Name of the supply"
            may-be-empty
            :maxlength="80"
            :model-value="source.name"
            @update:model-value="setSource('supply name', { name: $event })"
        /></label>
        <QuantityField
          label="Line pressure"
          dimension="pressureBar"
          :units="units"
          :usual="USUAL_LINE_PRESSURE"
          :model-value="source.linePressureBar"
          :assumed="isAssumed('linePressure')"
          @confirm="confirm('linePressure')"
          @update:model-value="needed((linePressureBar) => setSource('line pressure', { linePressureBar }))($event)"
        />
        <QuantityField
          label="Regulator at the inlet"
          dimension="pressureBar"
          optional
          empty="none"
          :low="0.5"
          :high="20"
          :units="units"
          :model-value="source.regulatorBar"
          @update:model-value="setSource('regulator', { regulatorBar: $event })"
        />
        <QuantityField
          label="Turbidity, NTU"
          dimension="count"
          :high="100"
          :units="units"
          :model-value="source.turbidityNTU"
          @update:model-value="needed((turbidityNTU) => setSource('turbidity', { turbidityNTU }))($event)"
        />
        <QuantityField
          label="Free chlorine"
          dimension="concentrationMgL"
          :high="20"
          :units="units"
          :model-value="sample.chlorineMgL"
          :assumed="isAssumed('chlorine')"
          @confirm="confirm('chlorine')"
          @update:model-value="needed((chlorineMgL) => set('chlorine', { chlorineMgL }))($event)"
        />
        <QuantityField
          label="Total chlorine"
          dimension="concentrationMgL"
          :low="sample.chlorineMgL"
          :high="sample.chlorineMgL + MOST_CHLORAMINE_MG_L"
          :units="units"
          :note="chloramineNote"
          :model-value="sample.chlorineMgL + sample.chloramineMgL"
          :assumed="isAssumed('chlorine')"
          @confirm="confirm('chlorine')"
          @update:model-value="needed(setTotalChlorine)($event)"
        />
        <div class="labelled">
          <span>Chloramine in it?</span>
          <button class="button small" type="button" :aria-pressed="untested" @click="chloramineUnknown">
            {{ untested ? 'Yes, amount not known' : 'Yes, but nobody tested how much' }}
          </button>
        </div>
      </div>
    </section>
    <SiltTest :silt="source.silt" @change="setSource('silt density', { silt: $event })" />
    <section v-if="span" class="sheet panel stack">
      <div class="headed">
        <h2>Over the year</h2>
        <p class="muted small">
          Winter sets the output, the dry season the strength. Left empty, the strength is taken from the dated samples.
        </p>
      </div>
      <div class="field-grid">
        <QuantityField
          label="Coldest water of the year"
          dimension="temperatureC"
          :units="units"
          :model-value="source.season.lowestTemperatureC"
          @update:model-value="needed((lowestTemperatureC) => setSeason('coldest water', { lowestTemperatureC }))($event)"
        />
        <QuantityField
          label="Warmest water of the year"
          dimension="temperatureC"
          :units="units"
          :model-value="source.season.highestTemperatureC"
          @update:model-value="needed((highestTemperatureC) => setSeason('warmest water', { highestTemperatureC }))($event)"
        />
        <QuantityField
          label="Weakest, wet season"
          dimension="conductivityUScm"
          optional
          empty="as the samples"
          :low="0.055"
          :units="units"
          :model-value="source.season.weakestUScm"
          @update:model-value="setSeason('wet season', { weakestUScm: $event })"
        />
        <QuantityField
          label="Strongest, dry season"
          dimension="conductivityUScm"
          optional
          empty="as the samples"
          :low="0.055"
          :units="units"
          :model-value="source.season.strongestUScm"
          @update:model-value="setSeason('dry season', { strongestUScm: $event })"
        />
      </div>
      <SeasonSpan :span="span" :samples="dots" :units="units" />
    </section>
    <section class="sheet panel stack">
      <div class="headed">
        <h2>A second water</h2>
        <p class="muted small">Rain, a well or a softener blended in before the train.</p>
        <button v-if="!second" class="button" type="button" @click="addSecond">Blend a second water in</button>
        <button v-else class="button small danger" type="button" @click="setSource('second water removed', { second: null })">
          Take it out
        </button>
      </div>
      <template v-if="second">
        <div class="field-grid">
          <label class="labelled"
            ><span>Its name</span
            ><NameField
              class="plain-input"
              label="Its name"
              may-be-empty
              :maxlength="80"
              :model-value="second.name"
              @update:model-value="setSecond('second water', { name: $event })"
          /></label>
          <QuantityField
            label="Its share"
            dimension="fraction"
            unit="%"
            :units="units"
            :model-value="second.share"
            @update:model-value="needed((share) => setSecond('share', { share }))($event)"
          />
          <div class="labelled">
            <span>Its kind</span>
            <v-select
              :items="CHARACTER_CHOICES"
              :model-value="second.sample.character"
              aria-label="Kind of the second water"
              @update:model-value="setOther('second water', { character: $event })"
            />
          </div>
          <QuantityField
            label="Its meter reading"
            dimension="count"
            optional
            :high="200000"
            :units="PLAIN_UNITS"
            :model-value="second.sample.reading"
            note="on the same meter"
            @update:model-value="setOther('second water', { reading: $event })"
          />
          <QuantityField
            label="Its hardness"
            dimension="hardnessMgL"
            optional
            :units="units"
            :model-value="second.sample.kit.hardnessMgL"
            @update:model-value="setOtherKit('second water', { hardnessMgL: $event })"
          />
          <QuantityField
            label="Its alkalinity"
            dimension="alkalinityMgL"
            optional
            :units="units"
            :model-value="second.sample.kit.alkalinityMgL"
            @update:model-value="setOtherKit('second water', { alkalinityMgL: $event })"
          />
          <QuantityField
            label="Its temperature"
            dimension="temperatureC"
            :units="units"
            :model-value="second.sample.temperatureC"
            @update:model-value="needed((temperatureC) => setOther('second water', { temperatureC }))($event)"
          />
        </div>
        <p v-if="secondState && mixed" class="mixed">
          {{ Math.round(100 * (1 - second.share)) }}{{ THIN }}% {{ inSentence(source.name) }} and {{ Math.round(100 * second.share)
          }}{{ THIN }}% {{ inSentence(second.name) }} at {{ ecText(secondState.ec25UScm) }} make
          <strong>{{ ecText(mixed.ec25UScm) }}</strong>, pH <strong>{{ mixed.pH.toFixed(2) }}</strong>: computed from what is in them, not
          averaged.
        </p>
        <FindingCard
          v-if="secondWater && !secondWater.ok"
          :finding="{ severity: 'bad', title: `${second.name} cannot be computed`, why: secondWater.error.message }"
        />
      </template>
    </section>
  </template>
</template>

<!-- prettier-ignore -->
<style scoped>
.headed { display: flex; align-items: baseline; gap: 6px 14px; flex-wrap: wrap; }
.headed p { flex: 1 1 200px; }
.mixed { font-size: 14.5px; }
</style>
