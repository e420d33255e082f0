<script setup lang="ts">
import { computed, onErrorCaptured, shallowRef } from 'vue';
import { useSaving } from '../store/saving';
import { exportEverything } from '../store/transfer';
import { useNotice } from '../kit/useNotice';

/** What stands in the place of a page that broke: never a blank one, and the way to take everything along. */
const broke = shallowRef<Error | null>(null);
const saving = useSaving();
const notice = useNotice();
onErrorCaptured((error) => {
  broke.value = error instanceof Error ? error : new Error(String(error));
  console.error(error);
  return false;
});
/** The browser's own words for what is missing help nobody. */
const reason = computed(() => {
  const message = broke.value?.message ?? '';
  const missing = /of (?:undefined|null) \(reading '(.+)'\)/.exec(message);
  return missing ? `“${missing[1]}” is missing where it is needed.` : message;
});
async function save(): Promise<void> {
  const says = await exportEverything(saving.unsaved());
  notice.say(says ?? 'Saved to a file.');
}
</script>

<template>
  <main v-if="broke" class="broke" role="alert">
    <h1>This page stopped working</h1>
    <p>
      What you entered is kept in this browser. The reason given: <code>{{ reason }}</code>
    </p>
    <div class="row">
      <button class="button primary" type="button" @click="save">Save everything to a file</button>
      <button class="button" type="button" @click="broke = null">Try again</button>
      <a class="button" href="/">To Rounds</a>
    </div>
  </main>
  <slot v-else />
</template>

<!-- prettier-ignore -->
<style scoped>
.broke { max-width: 640px; margin: 10vh auto 0; padding: 0 20px; display: grid; gap: 14px; }
code { font-family: var(--typed); font-size: 13.5px; overflow-wrap: anywhere; }
</style>
