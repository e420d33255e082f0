<script setup lang="ts">
import { piecesOf, spacesOfSystem } from '@yes-clear/core/choice';
import type { System } from '@yes-clear/core/file';
import { pricedByJob, priceList, withPiecePrice } from '@yes-clear/core/ledger';
import { pieceText, type Piece } from '@yes-clear/core/stage';
import { computed } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import { PRICE_WORDS } from '../kit/priceWords';
import QuantityField from '../kit/QuantityField.vue';
import WasteUsedField from '../kit/WasteUsedField.vue';
import type { OpenSystem } from '../system/openSystem';

/** What every part of the options costs; placeholders until the job's own are typed. */
const props = defineProps<{ system: System; of: OpenSystem }>();
const open = defineModel<boolean>({ required: true });
const prices = computed(() => priceList(props.system));
/** Prices of the job that options are paid with. */
const JOB = [
  'waterPerM3',
  'sewerPerM3',
  'powerPerKWh',
  'resinPerL',
  'saltPerKg',
  'tankPerL',
  'filter',
  'carbonPerL',
  'boosterPump',
  'cartridgePerL',
  'element',
] as const satisfies readonly (keyof typeof PRICE_WORDS)[];
/** Pieces the options of this job are bought as, that no price of the job speaks of. */
const own = computed(() =>
  open.value ? piecesOf(spacesOfSystem(props.system), prices.value).filter((piece) => !pricedByJob(piece, props.system.prices)) : [],
);
const setPart = (part: Piece, each: number): void => props.of.edit(`options price ${part}`, (s) => withPiecePrice(s, part, each));
const setJob = (key: (typeof JOB)[number], value: number): void =>
  props.of.edit(`prices ${key}`, (s) => ({ ...s, prices: { ...s.prices, [key]: value } }));
const typed = computed(() => new Set(props.system.choice.prices.map(({ part }) => part)));
</script>

<template>
  <v-dialog v-model="open" max-width="720">
    <v-card class="dialog-card">
      <DialogHead title="Prices of this job" @close="open = false" />
      <p class="small muted">
        In {{ system.prices.currency }}. Amounts nobody typed are placeholders, no shop’s: they only give the order of things.
      </p>
      <div class="grid">
        <QuantityField
          v-for="key in JOB"
          :key="key"
          :label="PRICE_WORDS[key]"
          dimension="count"
          :high="1000000"
          :units="system.units"
          :model-value="system.prices[key]"
          @update:model-value="$event !== null && setJob(key, $event)"
        />
        <QuantityField
          label="A visit"
          dimension="count"
          :high="1000000"
          :units="system.units"
          :model-value="system.choice.visitCost"
          @update:model-value="$event !== null && of.edit('options visit', (s) => ({ ...s, choice: { ...s.choice, visitCost: $event! } }))"
        />
        <WasteUsedField />
        <QuantityField
          v-for="part in own"
          :key="part"
          :label="pieceText(part, system.units)"
          dimension="count"
          :high="1000000"
          :units="system.units"
          :note="typed.has(part) ? '' : 'placeholder'"
          :model-value="prices.piece(part)"
          @update:model-value="$event !== null && setPart(part, $event)"
        />
      </div>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.grid { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 10px 14px; }
@media (max-width: 600px) { .grid { grid-template-columns: repeat(2, minmax(0, 1fr)); } }
</style>
