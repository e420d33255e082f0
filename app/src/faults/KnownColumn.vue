<script setup lang="ts">
import { CHECK_WORDS, KIND_WORDS } from '@yes-clear/core/fault';
import type { UnitPreference } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import type { FaultsFound, KnownReading } from '../worker/faultSearch';
import { dayAndTime } from '../time/dates';
import { bandText, readingText } from '../kit/faultText';
import type { FaultSearch } from './useFaultSearch';

/** What was read and answered, each beside what it should be; each can be struck out, and the ranking follows. */
const props = defineProps<{ search: FaultSearch; found: FaultsFound; units: UnitPreference }>();
const fromLog = computed(() => props.found.known.filter(({ from }) => from === 'log').length);
const keyOf = (known: KnownReading, i: number): string => (known.from === 'log' ? `log:${known.kind}` : `entry:${i - fromLog.value}`);
/** Outside of what is expected by more than twice its doubt. */
function isOff({ value, band }: KnownReading): boolean {
  if (!band) return false;
  const half = Math.max(band.high - band.middle, band.middle - band.low);
  return Math.abs(value - band.middle) > 2 * half;
}
</script>

<template>
  <p v-if="search.judged.value" class="small muted">Read {{ dayAndTime(search.judged.value.at) }}</p>
  <p v-else class="small muted">No reading in the log yet: take the checks one by one, or log a reading first.</p>
  <ul class="cards" aria-label="What was read">
    <li v-for="(known, i) in found.known" :key="keyOf(known, i)" :class="{ struck: known.struck }">
      <div class="head">
        <span>{{ KIND_WORDS[known.kind].label }}</span>
        <strong :class="{ off: !known.struck && isOff(known) }">{{ readingText(known.kind, known.value, units) }}</strong>
      </div>
      <p class="small">
        <template v-if="known.bad !== null && known.bad > 0.5">hardly believed: read it again</template>
        <template v-else-if="known.band">should be {{ bandText(known.kind, known.band, units) }}</template>
      </p>
      <div class="tools">
        <button type="button" class="link" :aria-pressed="known.struck" @click="search.strike(keyOf(known, i))">
          {{ known.struck ? 'put back' : 'strike out' }}
        </button>
        <button v-if="known.from === 'entry'" type="button" class="link" @click="search.takeBackEntry(i - fromLog)">remove</button>
      </div>
    </li>
    <li v-for="{ check, yes } in search.onSite.value.answers" :key="check">
      <div class="head">
        <span>{{ CHECK_WORDS[check].label }}</span><strong>{{ yes ? 'yes' : 'no' }}</strong>
      </div>
      <div class="tools"><button type="button" class="link" @click="search.takeBackAnswer(check)">remove</button></div>
    </li>
  </ul>
  <button
    v-if="search.onSite.value.entries.length + search.onSite.value.answers.length + search.onSite.value.struck.length > 0"
    type="button"
    class="button small"
    @click="search.startAnew"
  >
    Start anew
  </button>
  <p v-if="!found.hasBaseline" class="small muted">
    Nobody measured this system when it was handed over, and its log is short: each cause has to be told without knowing what it did when it
    was well. A hand-over sheet is worth about two of the best checks.
  </p>
  <p class="small muted">A reading you doubt can be struck out; the ranking follows.</p>
</template>

<!-- prettier-ignore -->
<style scoped>
.cards { list-style: none; margin: 0; padding: 0; display: grid; gap: 8px; }
li { background: var(--sheet); border: 1px solid var(--line); border-radius: 10px; padding: 9px 12px 7px; }
.head { display: flex; justify-content: space-between; gap: 10px; align-items: baseline; }
.head strong { font-variant-numeric: tabular-nums; white-space: nowrap; }
.off { color: var(--warning); }
li p { color: var(--muted); }
.tools { display: flex; gap: 14px; }
.link { border: 0; background: none; padding: 2px 0; color: var(--action); font: inherit; font-size: 13.3px; cursor: pointer; text-decoration: underline; text-underline-offset: 2px; }
.struck .head, .struck p { opacity: 0.55; }
.struck .head { text-decoration: line-through; }
@media (max-width: 860px) { .link { min-height: 44px; } }
</style>
