<script setup lang="ts">
import { useClipboard } from '@vueuse/core';
import { ref } from 'vue';
import { useNotice } from '../../kit/useNotice';

/** The link that carries the system, as text and as a code to scan. */
const large = ref(false);
const props = defineProps<{ link: string; qrSvg: string | null }>();
const notice = useNotice();
const { copy, isSupported } = useClipboard();
async function take(): Promise<void> {
  await copy(props.link).catch(() => undefined);
  notice.say('Link copied. It carries the whole system; whoever opens it is asked before it is kept.');
}
</script>

<template>
  <section class="sheet link" aria-label="Link to this system">
    <h3>A link that carries this system</h3>
    <!-- eslint-disable-next-line vue/no-v-html -- drawn here from the link alone -->
    <div v-if="qrSvg" class="code" role="img" aria-label="Code of the link" v-html="qrSvg" />
    <p v-if="!qrSvg" class="small">
      {{ link === '' ? 'The link is being made…' : 'This system is too large for a code. The link carries it all the same.' }}
    </p>
    <p class="small muted">
      A phone without these data opens the system it scans, and asks before it keeps it. Design, water, goal and prices go along; the log
      and the work done do not.
    </p>
    <div class="row">
      <button v-if="qrSvg" class="button" type="button" @click="large = true">Show it large</button>
      <button v-if="isSupported && link !== ''" class="button" type="button" @click="take">Copy the link</button>
    </div>
    <v-dialog v-if="qrSvg" v-model="large" width="auto" aria-label="Code of the link, large">
      <!-- eslint-disable-next-line vue/no-v-html -- drawn here from the link alone -->
      <div class="code whole" role="img" aria-label="Code of the link, large" @click="large = false" v-html="qrSvg" />
    </v-dialog>
    <label class="small">The link<input :value="link" readonly type="text" @focus="($event.target as HTMLInputElement).select()" /></label>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.link { display: grid; gap: 10px; padding: 12px 16px 14px; justify-items: start; }
.code { width: 100%; max-width: 260px; background: #fff; border-radius: 8px; padding: 4px; }
.whole { width: min(84vmin, 760px); max-width: none; }
.code :deep(svg) { display: block; width: 100%; height: auto; }
label { display: grid; gap: 4px; width: 100%; color: var(--muted); font-weight: 600; }
input { font: 400 13px var(--digits); padding: 7px 9px; border: 1px solid var(--line); border-radius: 8px; background: var(--paper); color: var(--ink); min-width: 0; width: 100%; box-sizing: border-box; }
</style>
