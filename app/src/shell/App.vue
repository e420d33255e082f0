<script setup lang="ts">
import { ref } from 'vue';
import { useHistory } from '../store/history';
import { useNotice } from './useNotice';
import { useTheme } from './useTheme';
import { useControlKey, useKey } from './useShortcuts';
import { defineAsyncComponent } from 'vue';

const ShortcutList = defineAsyncComponent(() => import('./ShortcutList.vue'));
const GoTo = defineAsyncComponent(() => import('./GoTo.vue'));
const history = useHistory();
const notice = useNotice();
const showKeys = ref(false);
const showGoTo = ref(false);
useTheme();

async function step(way: 'undo' | 'redo'): Promise<void> {
  const label = await history[way]();
  notice.say(label === null ? `Nothing to ${way}.` : way === 'undo' ? `Undone: ${label}.` : `Done again: ${label}.`);
}
useControlKey('z', (event) => void step(event.shiftKey ? 'redo' : 'undo'));
useControlKey('y', () => void step('redo'));
useControlKey('k', () => (showGoTo.value = true), true);
useKey('?', () => (showKeys.value = true));
</script>

<template>
  <v-app>
    <RouterView />
    <ShortcutList v-if="showKeys" v-model="showKeys" />
    <GoTo v-if="showGoTo" v-model="showGoTo" />
    <v-snackbar v-model="notice.open">{{ notice.text }}</v-snackbar>
  </v-app>
</template>
