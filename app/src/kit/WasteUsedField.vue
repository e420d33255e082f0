<script setup lang="ts">
import { useOpenSystem } from '../system/openSystem';
import QuantityField from './QuantityField.vue';

/** What of the waste is used for something else, beside the prices of water and drain. */
const { system, edit } = useOpenSystem();
const set = (wasteUsedShare: number): void => edit('waste used', (s) => ({ ...s, choice: { ...s.choice, wasteUsedShare } }));
const setBarrel = (wasteBarrelL: number | null): void => edit('waste barrel', (s) => ({ ...s, choice: { ...s.choice, wasteBarrelL } }));
</script>

<template>
  <QuantityField
    v-if="system"
    label="Waste that is used"
    dimension="fraction"
    unit="%"
    :low="0"
    :high="1"
    :units="system.units"
    note="for washing or plants: neither bought nor drained"
    :model-value="system.choice.wasteUsedShare"
    @update:model-value="$event !== null && set($event)"
  />
  <QuantityField
    v-if="system && system.choice.wasteUsedShare > 0"
    label="Barrel it is gathered in"
    dimension="volumeL"
    optional
    empty="a drum, 200 L"
    :low="1"
    :units="system.units"
    :model-value="system.choice.wasteBarrelL"
    @update:model-value="setBarrel"
  />
</template>
