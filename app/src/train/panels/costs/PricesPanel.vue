<script setup lang="ts">
import type { Prices } from '@yes-clear/core/file';
import { chemicalsUsed, priceList, withPiecePrice } from '@yes-clear/core/ledger';
import { allStandings } from '@yes-clear/core/life';
import { pieceText } from '@yes-clear/core/stage';
import { computed } from 'vue';
import NameField from '../../../kit/NameField.vue';
import { PRICE_KEYS, PRICE_WORDS } from '../../../kit/priceWords';
import QuantityField from '../../../kit/QuantityField.vue';
import WasteUsedField from '../../../kit/WasteUsedField.vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useWorkbench } from '../../useWorkbench';

/** What water, power and parts cost on this job; every cost in the application is made from these. */
const current = useOpenSystem();
const { system } = current;
const set = (changes: Partial<Prices>): void =>
  current.edit(`prices ${Object.keys(changes).join()}`, (s) => ({ ...s, prices: { ...s.prices, ...changes } }));

/** Acid, alkali and the like that this train uses up: each has a price by the kilogram. */
const { drawn, report } = useWorkbench();
const chemicals = computed(() => (drawn.value && report.value ? chemicalsUsed(allStandings(drawn.value, report.value)) : []));
const list = computed(() => (system.value ? priceList(system.value) : null));
</script>

<template>
  <details v-if="system" class="panel prices">
    <summary>Prices of this job <span class="muted small">placeholders until you type your own</span></summary>
    <div class="field-grid">
      <label class="labelled"
        ><span>Currency</span
        ><NameField
          class="plain-input"
          label="Currency"
          :maxlength="8"
          :model-value="system.prices.currency"
          @update:model-value="set({ currency: $event })"
      /></label>
      <QuantityField
        v-for="key in PRICE_KEYS"
        :key="key"
        :label="PRICE_WORDS[key]"
        dimension="count"
        :high="1000000"
        :units="system.units"
        :note="system.prices.currency"
        :model-value="system.prices[key]"
        @update:model-value="$event !== null && set({ [key]: $event })"
      />
      <QuantityField
        v-for="piece in chemicals"
        :key="piece"
        :label="pieceText(piece, system.units)"
        dimension="count"
        :high="1000000"
        :units="system.units"
        :note="system.prices.currency"
        :model-value="list?.piece(piece) ?? 0"
        @update:model-value="$event !== null && current.edit(`price ${piece}`, (s) => withPiecePrice(s, piece, $event!))"
      />
      <WasteUsedField />
    </div>
  </details>
</template>

<!-- prettier-ignore -->
<style scoped>
.prices { }
summary { cursor: pointer; font-weight: 700; font-size: 15px; }
summary span { font-weight: 400; margin-left: 8px; }
.field-grid { margin-top: 12px; }
.plain-input { width: 100%; box-sizing: border-box; }
</style>
