<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useSystemHeads } from '../store/heads';
import { PHASES } from './router';

/** Go to anything: every system and every phase of it, by typing a part of its name. */
const open = defineModel<boolean>({ required: true });
const router = useRouter();
const heads = useSystemHeads();
/** Pages beside the phases. */
const BESIDE = [
  { key: 'options', label: 'Compare options' },
  { key: 'year', label: 'Year ahead' },
] as const;
const text = ref('');
const at = ref(0);
const places = computed(() => [
  { title: 'Rounds', where: 'all systems', to: { name: 'rounds' } as { name: string; params?: { id: string } } },
  { title: 'The van’s year', where: 'all systems', to: { name: 'van-year' } },
  { title: 'Practice', where: 'simulated rigs', to: { name: 'practice' } },
  ...(heads.value ?? []).flatMap(({ id, name, site }) =>
    [...PHASES, ...BESIDE].map((place) => ({ title: `${name}: ${place.label}`, where: site, to: { name: place.key, params: { id } } })),
  ),
]);
const found = computed(() => {
  const parts = text.value.toLowerCase().split(/\s+/).filter(Boolean);
  return places.value.filter((place) => parts.every((part) => `${place.title} ${place.where}`.toLowerCase().includes(part))).slice(0, 9);
});
function go(index: number): void {
  const place = found.value[index];
  // Who types faster than the systems are read still gets there.
  wanted = heads.value === null ? index : null;
  if (!place) return;
  open.value = false;
  void router.push(place.to);
}
let wanted: number | null = null;
watch(found, () => {
  if (wanted !== null) go(wanted);
});
function key(event: KeyboardEvent): void {
  if (event.key === 'ArrowDown') at.value = Math.min(found.value.length - 1, at.value + 1);
  else if (event.key === 'ArrowUp') at.value = Math.max(0, at.value - 1);
  else if (event.key === 'Enter') go(at.value);
  else {
    at.value = 0;
    return;
  }
  event.preventDefault();
}
</script>

<template>
  <v-dialog v-model="open" max-width="480">
    <v-card class="go">
      <input v-model="text" autofocus aria-label="Go to" placeholder="Go to…" @keydown="key" />
      <ul role="listbox" aria-label="Places">
        <li
          v-for="(place, i) in found"
          :key="place.title + place.where"
          role="option"
          :aria-selected="i === at"
          @click="go(i)"
          @mousemove="at = i"
        >
          <strong>{{ place.title }}</strong> <span class="muted">{{ place.where }}</span>
        </li>
        <li v-if="found.length === 0" class="muted">Nothing is called “{{ text }}”.</li>
      </ul>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.go { padding: 12px; }
input { width: 100%; font: 500 17px var(--digits); padding: 9px 12px; border: 1px solid var(--line); border-radius: 9px; background: var(--sheet); color: var(--ink); }
ul { list-style: none; margin: 8px 0 0; padding: 0; }
li { padding: 8px 12px; border-radius: 8px; cursor: pointer; }
li[aria-selected='true'] { background: var(--select); }
</style>
