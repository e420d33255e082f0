<script setup lang="ts">
import type { UnitPreference } from '@yes-clear/core/quantity';
import QuantityField from './QuantityField.vue';

/** What of the waste is used for something else, beside the prices of water and drain. */
defineProps<{ units: UnitPreference }>();
const share = defineModel<number>({ required: true });
</script>

<template>
  <QuantityField
    label="Waste that is used"
    dimension="fraction"
    unit="%"
    :low="0"
    :high="1"
    :units="units"
    note="for washing or plants: neither bought nor drained"
    :model-value="share"
    @update:model-value="$event !== null && (share = $event)"
  />
</template>
