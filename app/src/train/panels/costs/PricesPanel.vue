<script setup lang="ts">
import type { Prices } from '@yes-clear/core/file';
import NameField from '../../../kit/NameField.vue';
import { PRICE_KEYS, PRICE_WORDS } from '../../../kit/priceWords';
import QuantityField from '../../../kit/QuantityField.vue';
import WasteUsedField from '../../../kit/WasteUsedField.vue';
import { useOpenSystem } from '../../../system/openSystem';

/** What water, power and parts cost on this job; every cost in the application is made from these. */
const current = useOpenSystem();
const { system } = current;
const set = (changes: Partial<Prices>): void =>
  current.edit(`prices ${Object.keys(changes).join()}`, (s) => ({ ...s, prices: { ...s.prices, ...changes } }));
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
