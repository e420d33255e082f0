<script setup lang="ts">
import type { StageOf } from '@yes-clear/core/stage';
import { percent } from '@yes-clear/core/quantity';
import { mdiClose } from '@mdi/js';
import { ref } from 'vue';
import AppIcon from '../../../kit/AppIcon.vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useTrainEdits } from '../../useTrainEdits';
import DialTable from './DialTable.vue';

/** The settings of a dial as its maker prints them, each with the share that goes past: typed once, and set by a press. */
const props = defineProps<{ stage: StageOf<'decarboniser'>; hardnessMgL: number | null }>();
const edits = useTrainEdits(useOpenSystem());
const label = ref('');
const share = ref('');
const refused = ref('');
type Settings = StageOf<'decarboniser'>['settings'];
const keep = (settings: Settings): void => edits.change({ ...props.stage, settings }, 'settings of the dial');
function add(): void {
  const past = Number(share.value.replace('%', '').replace(',', '.').trim());
  refused.value =
    label.value.trim() === ''
      ? 'Setting is empty: what stands on the dial, such as 3 or B.'
      : share.value.trim() === '' || !Number.isFinite(past) || past < 0 || past > 100
        ? `Share past it is ${share.value.trim() || 'empty'}; 0 to 100 % can be entered.`
        : '';
  if (refused.value !== '') return;
  const one = { label: label.value.trim(), bypass: past / 100 };
  keep([...props.stage.settings.filter((other) => other.label !== one.label), one].sort((a, b) => a.bypass - b.bypass));
  label.value = '';
  share.value = '';
}
const set = (bypass: number): void => edits.change({ ...props.stage, bypass }, 'Bypass');
</script>

<template>
  <section class="own" aria-label="Settings as printed">
    <h3>Its own settings</h3>
    <ul v-if="stage.settings.length > 0">
      <li v-for="one in stage.settings" :key="one.label">
        <button
          type="button"
          class="button small"
          :class="{ primary: Math.abs(one.bypass - stage.bypass) < 0.005 }"
          :aria-pressed="Math.abs(one.bypass - stage.bypass) < 0.005"
          @click="set(one.bypass)"
        >
          {{ one.label }}
        </button>
        <span>{{ percent(one.bypass) }} past it</span>
        <button
          type="button"
          class="tool"
          :aria-label="`Remove setting ${one.label}`"
          @click="keep(stage.settings.filter(({ label: other }) => other !== one.label))"
        >
          <AppIcon :path="mdiClose" :size="17" />
        </button>
      </li>
    </ul>
    <form class="add" @submit.prevent="add">
      <input v-model="label" class="plain-input" maxlength="12" placeholder="setting" aria-label="Setting on the dial" />
      <input
        v-model="share"
        class="plain-input"
        maxlength="8"
        inputmode="decimal"
        placeholder="% past it"
        aria-label="Share past it at this setting"
      />
      <button type="submit" class="button small">Add</button>
    </form>
    <p v-if="refused !== ''" class="wrong" role="alert">{{ refused }}</p>
    <DialTable :stage="stage" :hardness-mg-l="hardnessMgL" @set="set" />
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.own { display: grid; gap: 6px; }
h3 { margin: 0; font-size: 14px; }
ul { list-style: none; margin: 0; padding: 0; }
li { display: grid; grid-template-columns: auto 1fr auto; gap: 10px; align-items: center; padding: 2px 0; font-size: 14px; }
.add { display: grid; grid-template-columns: 1fr 1fr auto; gap: 6px; align-items: center; }
.tool { border: 0; background: transparent; color: var(--muted); width: 34px; height: 34px; border-radius: 8px; cursor: pointer; display: grid; place-items: center; }
.wrong { color: var(--bad); font-size: 13px; font-weight: 550; margin: 0; }
@media (max-width: 860px) { .button, .tool { min-height: 44px; min-width: 44px; } }
</style>
