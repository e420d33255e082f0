<script setup lang="ts">
import { formatIn } from '@yes-clear/core/quantity';
import { computed } from 'vue';

/** One hardness in every scale it may be asked for in. */
const props = defineProps<{ hardnessMgL: number; alkalinityMgL: number }>();
const SCALES = ['mg/L CaCO₃', '°dH', 'gpg', '°fH', '°e', 'mmol/L'];
const kinds = computed(() => {
  const carbonate = Math.min(props.hardnessMgL, Math.max(0, props.alkalinityMgL));
  return [
    { label: 'Total hardness', value: props.hardnessMgL },
    { label: 'Temporary, goes with boiling', value: carbonate },
    { label: 'Permanent', value: props.hardnessMgL - carbonate },
    { label: 'Alkalinity', value: props.alkalinityMgL },
  ];
});
/** USGS school; class edges belong to the lower class. */
const word = computed(() => (props.hardnessMgL <= 60 ? 'soft' : props.hardnessMgL <= 120 ? 'moderately hard' : props.hardnessMgL <= 180 ? 'hard' : 'very hard'));
</script>

<template>
  <div class="scroll">
    <table class="figures">
      <thead>
        <tr>
          <th>This water is {{ word }}</th>
          <th v-for="scale in SCALES" :key="scale">{{ scale }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="kind in kinds" :key="kind.label">
          <td>{{ kind.label }}</td>
          <td v-for="scale in SCALES" :key="scale">{{ formatIn(kind.value, 'hardnessMgL', scale).number }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll { overflow-x: auto; }
th:first-child { font-size: 14px; }
</style>
