<script setup lang="ts">
import { parseQuantity } from '@yes-clear/core/quantity';
import { ref } from 'vue';

/** A line of one's own for the list: what, how many, and what one costs if it is known. */
const emit = defineEmits<{ add: [part: { name: string; count: number; each: number | null }] }>();
const name = ref('');
const count = ref('1');
const each = ref('');
const error = ref('');
function add(): void {
  const many = parseQuantity(count.value, 'count', { field: 'Count', low: 0.01, high: 10_000 });
  const price = each.value.trim() === '' ? null : parseQuantity(each.value, 'count', { field: 'Each', low: 0, high: 1_000_000 });
  error.value =
    name.value.trim() === ''
      ? 'Part is empty; accepted is what it is called.'
      : !many.ok
        ? many.error.message
        : price !== null && !price.ok
          ? price.error.message
          : '';
  if (error.value !== '' || !many.ok) return;
  emit('add', { name: name.value.trim().slice(0, 120), count: many.value.value, each: price?.ok ? price.value.value : null });
  [name.value, count.value, each.value] = ['', '1', ''];
}
</script>

<template>
  <form class="own" @submit.prevent="add">
    <input v-model="name" type="text" maxlength="120" aria-label="Part of your own" placeholder="Add a part of your own" />
    <input v-model="count" type="text" inputmode="decimal" aria-label="Count" class="few" />
    <input v-model="each" type="text" inputmode="decimal" aria-label="Each" placeholder="each" class="few" />
    <button class="button small" type="submit">Add</button>
    <p v-if="error" role="alert">{{ error }}</p>
  </form>
</template>

<!-- prettier-ignore -->
<style scoped>
.own { display: flex; flex-wrap: wrap; gap: 8px; padding: 10px 8px 0; }
input { font: 450 14px var(--digits); padding: 7px 10px; border: 1px solid var(--line); border-radius: 8px; background: var(--paper); color: var(--ink); flex: 1 1 200px; min-width: 0; }
.few { flex: 0 1 84px; text-align: right; }
p { flex-basis: 100%; color: var(--bad); font-size: 13.3px; margin: 0; }
@media print { .own { display: none; } }
@media (max-width: 860px) { input, .button { min-height: 44px; } }
</style>
