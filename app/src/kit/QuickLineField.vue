<script setup lang="ts">
import type { System } from '@yes-clear/core/file';
import { ec25FromReading } from '@yes-clear/core/water';
import { computed, useTemplateRef, watch } from 'vue';
import { waterColour } from '../descent/waterColour';
import type { QuickLine } from '@yes-clear/core/log';

/** A reading typed as one line; each piece is underlined in the colour of what it was taken for. */
const props = defineProps<{ system: System; parsed: QuickLine; placeholder?: string }>();
const text = defineModel<string>({ required: true });
defineEmits<{ submit: [] }>();
const input = useTemplateRef<HTMLTextAreaElement>('input');
/** A line that was pasted stays one. */
watch(text, (typed) => {
  if (/[\r\n]/.test(typed)) text.value = typed.replace(/[\r\n]+/g, ' ');
});
defineExpose({ focus: () => input.value?.focus() });

interface Piece {
  readonly text: string;
  readonly colour: string | null;
  readonly wrong: boolean;
}

function colourOf(token: QuickLine['tokens'][number]): string | null {
  if (token.kind === 'note') return null;
  if (token.kind !== 'probe') return 'var(--muted)';
  const value = props.parsed.reading.values[token.probe ?? 0];
  const instrument = props.system.instruments.find((candidate) => candidate.id === value?.instrumentId);
  const ec25 = value && instrument ? ec25FromReading(value.shown, instrument.scale) : null;
  return ec25?.ok ? waterColour(Math.max(ec25.value, 0.06)) : 'var(--muted)';
}

/** The line cut into pieces as typed, spaces included, so that it lies exactly under the input. */
const pieces = computed<Piece[]>(() => {
  const cut: Piece[] = [];
  let end = 0;
  for (const token of props.parsed.tokens) {
    if (token.start > end) cut.push({ text: text.value.slice(end, token.start), colour: null, wrong: false });
    cut.push({ text: text.value.slice(token.start, token.end), colour: colourOf(token), wrong: token.kind === 'error' });
    end = token.end;
  }
  cut.push({ text: text.value.slice(end), colour: null, wrong: false });
  return cut;
});
</script>

<template>
  <div class="quick">
    <div class="under" aria-hidden="true">
      <span
        v-for="(piece, i) in pieces"
        :key="i"
        :class="{ wrong: piece.wrong, taken: piece.colour }"
        :style="piece.colour ? { '--taken': piece.colour } : undefined"
        >{{ piece.text }}</span
      >
    </div>
    <textarea
      ref="input"
      v-model="text"
      rows="1"
      autocomplete="off"
      spellcheck="false"
      aria-label="Quick reading"
      :placeholder="placeholder ?? '311 10 0 59psi 11C 410/1500ml'"
      @keydown.enter.prevent="$emit('submit')"
    ></textarea>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.quick { position: relative; min-width: 0; }
textarea, .under { font: 500 17px/26px var(--typed); padding: 7px 4px 9px; letter-spacing: 0; white-space: pre-wrap; overflow-wrap: break-word; }
/* As high as what is typed: all of it is seen, on a phone too. */
textarea { position: relative; display: block; width: 100%; resize: none; overflow: hidden; field-sizing: content; border-radius: 0; border: 0; border-bottom: 1px solid var(--line); outline: none; background: transparent; color: var(--ink); }
textarea:focus { border-bottom-color: var(--action); }
textarea::placeholder { color: var(--muted); opacity: 0.6; }
.under { position: absolute; inset: 0; overflow: hidden; color: transparent; pointer-events: none; }
.taken { box-shadow: inset 0 -3px 0 var(--taken); padding-bottom: 3px; }
.wrong { box-shadow: inset 0 -3px 0 var(--bad); background: color-mix(in srgb, var(--bad) 12%, transparent); padding-bottom: 3px; }
</style>
