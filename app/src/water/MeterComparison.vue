<script setup lang="ts">
import { idFor } from '../store/newId';
import type { Comparison, Instrument } from '@yes-clear/core/file';
import { formatIn, THIN } from '@yes-clear/core/quantity';
import { compareMeters, withResidualDrop, type MeterVerdict } from '@yes-clear/core/water';
import { meterEntry, shownUnitOf } from '@yes-clear/core/log';
import { mdiPlus } from '@mdi/js';
import { computed } from 'vue';
import AppIcon from '../kit/AppIcon.vue';
import QuantityField from '../kit/QuantityField.vue';
import { useOpenSystem } from '../system/openSystem';
import { PLAIN_UNITS, scaleTitle } from './meterScales';

/** Several meters in the same glass: which difference is scale, which is error, and the correction that mends it. */
const emit = defineEmits<{ set: [id: string, label: string, changes: Partial<Instrument>] }>();
const current = useOpenSystem();
const instruments = computed(() => current.system.value?.instruments ?? []);
const comparison = computed(() => current.system.value?.comparison ?? { referenceId: null, glasses: [] });
const glasses = computed(() => (comparison.value.glasses.length > 0 ? comparison.value.glasses : [{ id: 'glass-1', shown: [] }]));
const referenceId = computed(() => comparison.value.referenceId ?? instruments.value[0]?.id ?? '');

const shownIn = (glass: Comparison['glasses'][number], id: string): number | null =>
  glass.shown.find((value) => value.instrumentId === id)?.shown ?? null;
const verdicts = computed(() =>
  compareMeters(
    instruments.value.map(({ id, name, scale }) => ({ id, name, scale, shown: glasses.value.map((glass) => shownIn(glass, id)) })),
    referenceId.value,
  ),
);
const verdictOf = (id: string): MeterVerdict | undefined => verdicts.value.find((verdict) => verdict.id === id);

const save = (label: string, change: (comparison: Comparison) => Comparison): void =>
  current.edit(label, (s) => ({
    ...s,
    comparison: change({
      referenceId: referenceId.value,
      glasses: s.comparison.glasses.length > 0 ? s.comparison.glasses : [{ id: 'glass-1', shown: [] }],
    }),
  }));
function read(glassId: string, id: string, value: number | null): void {
  save('comparison', (was) => ({
    ...was,
    glasses: was.glasses.map((glass) =>
      glass.id === glassId
        ? {
            ...glass,
            shown: [
              ...glass.shown.filter((one) => one.instrumentId !== id),
              ...(value === null ? [] : [{ instrumentId: id, shown: value }]),
            ],
          }
        : glass,
    ),
  }));
}
const addGlass = (): void => save('glass added', (was) => ({ ...was, glasses: [...was.glasses, { id: idFor('glass'), shown: [] }] }));
const removeGlass = (id: string): void =>
  save('glass removed', (was) => ({ ...was, glasses: was.glasses.filter((glass) => glass.id !== id) }));

/** What a drop of the strongest glass left on a tip would do to the weakest. */
const leftover = computed(() => {
  const strengths = (verdictOf(referenceId.value)?.ec25UScm ?? []).filter((ec): ec is number => ec !== null && ec > 0);
  const [weak, strong] = [Math.min(...strengths), Math.max(...strengths)];
  if (strengths.length < 2 || strong < 5 * weak) return '';
  const shown = withResidualDrop(weak, 10, strong, 0.05);
  return `A drop (0.05 mL) of the stronger glass left in a 10 mL cap turns ${formatIn(weak, 'conductivityUScm', 'µS/cm').text} into ${formatIn(shown, 'conductivityUScm', 'µS/cm').text}: rinse twice. `;
});
const signed = (share: number): string =>
  `${share >= 0 ? '+' : '−'}${Math.abs(100 * share).toFixed(Math.abs(share) < 0.095 ? 1 : 0)}${THIN}%`;
/** What a comparison says of one meter, number first. */
function says(verdict: MeterVerdict): string {
  switch (verdict.says) {
    case 'reference':
      return 'The others are held against this one.';
    case 'not read':
      return 'Not read in a glass with the reference.';
    case 'agrees':
      return `Agrees: ${signed(verdict.error!)} in conductivity. ${Math.abs(verdict.byScale!) > 0.02 ? `Its figure differs by ${signed(verdict.byScale!)} because its scale does.` : 'Same kind of scale.'}`;
    case 'other scale':
      return `${signed(verdict.error!)} in conductivity on the scale entered; it would agree as “${scaleTitle(verdict.likelyScale!)}”.`;
    case 'differs':
      return `${signed(verdict.error!)} in conductivity: error, not scale. Clean the tip, check the battery, calibrate, or correct it here.`;
  }
}
/** Whether a correction would change what the meter is taken for. */
const canCorrect = (verdict: MeterVerdict): boolean => {
  const one = instruments.value.find((instrument) => instrument.id === verdict.id);
  const fit = verdict.correction;
  return (
    !!one && !!fit && verdict.says !== 'reference' && (Math.abs(fit.gain - one.gain) > 0.002 || Math.abs(fit.offset - one.offset) > 0.05)
  );
};
const fitText = ({ correction }: MeterVerdict): string =>
  `gain ${correction!.gain.toFixed(3)}${Math.abs(correction!.offset) < 0.05 ? '' : `, offset ${correction!.offset.toFixed(1)}`}`;
</script>

<template>
  <section class="sheet compare" aria-label="Compare meters">
    <div class="head">
      <div>
        <h2>Compare meters</h2>
        <p class="muted small">
          Dip each into the same glass, tips clean, one after the other. A second, weaker glass tells gain from offset.
        </p>
      </div>
      <button class="button small" type="button" :disabled="glasses.length >= 5" @click="addGlass">
        <AppIcon :path="mdiPlus" :size="16" />Glass
      </button>
    </div>
    <div class="scroll">
      <table class="figures" aria-label="Meters in the same glass">
        <thead>
          <tr>
            <th>Meter</th>
            <th v-for="(glass, i) in glasses" :key="glass.id" class="glass">
              Glass {{ i + 1 }}
              <button
                v-if="glasses.length > 1"
                class="gone"
                type="button"
                :aria-label="`Remove glass ${i + 1}`"
                @click="removeGlass(glass.id)"
              >
                ×
              </button>
            </th>
            <th v-for="(glass, i) in glasses" :key="`ec-${glass.id}`">{{ glasses.length > 1 ? `${i + 1}: ` : '' }}µS/cm</th>
            <th class="says">What it says</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in instruments" :key="one.id">
            <td>
              <label class="who"
                ><input
                  type="radio"
                  name="reference"
                  :checked="one.id === referenceId"
                  :aria-label="`${one.name} is the reference`"
                  @change="save('reference', (was) => ({ ...was, referenceId: one.id }))"
                /><span
                  >{{ one.name }}<small>{{ scaleTitle(one.scale) }}</small></span
                ></label
              >
            </td>
            <td v-for="(glass, i) in glasses" :key="glass.id" class="entry">
              <QuantityField
                :label="`${one.name} in glass ${i + 1}`"
                class="bare"
                dimension="count"
                optional
                :low="0"
                :high="200000"
                :reads="(text: string) => meterEntry(text, one, one.name)"
                :units="PLAIN_UNITS"
                :model-value="shownIn(glass, one.id)"
                @update:model-value="read(glass.id, one.id, $event)"
              />
              <span class="muted small">{{ shownUnitOf(one) }}</span>
            </td>
            <td v-for="(ec, i) in verdictOf(one.id)?.ec25UScm ?? []" :key="`ec-${i}`">
              {{ ec === null ? '–' : formatIn(ec, 'conductivityUScm', 'µS/cm').number }}
            </td>
            <td class="says" :class="verdictOf(one.id)?.says.replace(' ', '-')">
              <template v-if="verdictOf(one.id)">
                {{ says(verdictOf(one.id)!) }}
                <span class="row">
                  <button
                    v-if="verdictOf(one.id)!.likelyScale"
                    class="button small"
                    type="button"
                    @click="emit('set', one.id, 'meter scale', { scale: verdictOf(one.id)!.likelyScale! })"
                  >
                    Set that scale
                  </button>
                  <button
                    v-if="canCorrect(verdictOf(one.id)!)"
                    class="button small"
                    type="button"
                    @click="emit('set', one.id, 'meter corrected', { ...verdictOf(one.id)!.correction! })"
                  >
                    Correct it: {{ fitText(verdictOf(one.id)!) }}
                  </button>
                </span>
              </template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="foot muted small">
      {{ leftover }}Readings count as agreeing within 15{{ THIN }}% in conductivity, or 2{{ THIN }}µS/cm below 10: three meters on three
      scales may differ by 20{{ THIN }}% in ppm without any fault.
    </p>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.head { display: flex; justify-content: space-between; gap: 12px; align-items: flex-start; padding: 12px 14px 8px; }
.scroll { overflow-x: auto; }
td { vertical-align: middle; }
.who { display: flex; gap: 9px; align-items: center; cursor: pointer; }
.who input { accent-color: var(--action); width: 16px; height: 16px; }
.who span { font-weight: 620; }
.who small { display: block; font-weight: 450; font-size: 13px; color: var(--muted); }
.entry { white-space: nowrap; }
.entry :deep(.quantity) { display: inline-grid; width: 96px; }
.bare :deep(label) { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
.bare :deep(.box) { min-height: 34px; }
.bare :deep(input) { text-align: right; }
.bare :deep(input::placeholder) { color: transparent; }
.entry span { padding-left: 6px; display: inline-block; min-width: 44px; text-align: left; }
.says { text-align: left !important; white-space: normal !important; min-width: 250px; }
.says .row { display: flex; gap: 6px; margin-top: 4px; }
.says .row:empty { display: none; }
.agrees { color: var(--good); }
.differs, .other-scale { color: var(--warning); }
.gone { border: 0; background: transparent; color: var(--muted); font: inherit; cursor: pointer; padding: 0 4px; }
.foot { padding: 8px 14px 12px; border-top: 1px solid var(--hair); }
</style>
