<script setup lang="ts">
import { ref } from 'vue';
import { useHistory } from '../store/history';
import { useNotice } from '../kit/useNotice';
import { useQuickReading } from '../kit/useQuickReading';
import PageBoundary from './PageBoundary.vue';
import { useTheme } from './useTheme';
import { useControlKey, useKey } from '../kit/useKeys';
import { defineAsyncComponent } from 'vue';

const ShortcutList = defineAsyncComponent(() => import('./ShortcutList.vue'));
const QuickReading = defineAsyncComponent(() => import('./QuickReading.vue'));
const GoTo = defineAsyncComponent(() => import('./GoTo.vue'));
const history = useHistory();
const notice = useNotice();
const quick = useQuickReading();
const showKeys = ref(false);
const showGoTo = ref(false);
useTheme();

async function step(way: 'undo' | 'redo'): Promise<void> {
  notice.say(await history[way]());
}
function act(): void {
  notice.open = false;
  notice.action?.run();
}
useControlKey('z', (event) => void step(event.shiftKey ? 'redo' : 'undo'));
useControlKey('y', () => void step('redo'));
useControlKey('k', () => (showGoTo.value = true), true);
useKey('?', () => (showKeys.value = true));
</script>

<template>
  <v-app>
    <!-- A system's pages, and a rig's of the bench, are made anew for each: nothing of one can reach another. -->
    <RouterView v-slot="{ Component, route }">
      <PageBoundary :key="String(route.params['id'] ?? route.path)">
        <component :is="Component" v-if="Component" />
        <p v-else class="opening muted" role="status">Opening…</p>
      </PageBoundary>
    </RouterView>
    <QuickReading v-if="quick.open" />
    <ShortcutList v-if="showKeys" v-model="showKeys" />
    <GoTo v-if="showGoTo" v-model="showGoTo" />
    <v-snackbar v-model="notice.open" :timeout="notice.action ? 12000 : 5000">
      {{ notice.text }}
      <template v-if="notice.action" #actions
        ><button class="act" type="button" @click="act">{{ notice.action.label }}</button></template
      >
    </v-snackbar>
  </v-app>
</template>

<!-- prettier-ignore -->
<style scoped>
.opening { padding: 40px 20px; }
.act { border: 1px solid color-mix(in srgb, currentColor 40%, transparent); border-radius: 8px; background: transparent; color: inherit; font: 650 14px var(--digits); padding: 8px 14px; cursor: pointer; }
</style>
