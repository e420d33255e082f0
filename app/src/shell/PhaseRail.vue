<script setup lang="ts">
import { type PhaseKey, PHASES } from './router';
import type { PhaseStates } from './usePhaseStates';

defineProps<{ systemId: string; active: PhaseKey | null; states: PhaseStates }>();
const SAYS = { done: 'done', attention: 'needs attention', nothing: 'nothing yet' } as const;
</script>

<template>
  <nav class="rail" aria-label="Phases">
    <RouterLink
      v-for="(phase, i) in PHASES"
      :key="phase.key"
      :to="{ name: phase.key, params: { id: systemId } }"
      :class="{ active: active === phase.key }"
      :aria-current="active === phase.key ? 'page' : undefined"
    >
      <span class="number">{{ i + 1 }}</span>
      <span class="name">{{ phase.label }}</span>
      <span class="dot" :class="states[phase.key]"
        ><span class="hidden">{{ SAYS[states[phase.key]] }}</span></span
      >
    </RouterLink>
  </nav>
</template>

<!-- prettier-ignore -->
<style scoped>
.rail { display: flex; gap: 4px; height: var(--header); }
a { display: flex; align-items: center; gap: 7px; padding: 2px 11px 0; color: var(--muted); text-decoration: none; font-weight: 600; border-bottom: 3px solid transparent; }
a.active { color: var(--ink); border-bottom-color: var(--action); font-weight: 720; }
a:hover { color: var(--ink); }
.number { font-size: 13px; opacity: 0.8; font-weight: 450; }
.dot { width: 8px; height: 8px; border-radius: 50%; border: 1.5px solid var(--muted); opacity: 0.55; }
.dot.done { background: var(--good); border-color: var(--good); opacity: 1; }
.dot.attention { background: var(--warning); border-color: var(--warning); opacity: 1; }
.hidden { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
@media (max-width: 860px) {
  .rail { position: fixed; inset: auto 0 0 0; height: 60px; background: var(--sheet); border-top: 1px solid var(--line); z-index: 30; gap: 0; padding-bottom: env(safe-area-inset-bottom); }
  a { flex: 1; flex-direction: column; justify-content: center; gap: 3px; padding: 0 2px; border-bottom: 0; border-top: 3px solid transparent; font-size: 14px; }
  a.active { border-top-color: var(--action); }
  .number { display: none; }
}
</style>
