<script setup lang="ts">
import { usualUnits } from '../kit/usualUnits';
import { UNIT_PRESETS, presetOf, withPreset } from '@yes-clear/core/quantity';
import { newId } from '../store/newId';
import { TEMPLATE_IDS, withStands, type Stands, type TemplateId } from '@yes-clear/core/file';
import { GOAL_ROWS } from '@yes-clear/core/goal';
import { systemFromTemplate, TEMPLATE_ROWS } from '@yes-clear/core/template';
import { computed, ref, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import DescentPicture from '../descent/DescentPicture.vue';
import Segments from '../kit/Segments.vue';
import StandsChoice from '../kit/StandsChoice.vue';
import { useSaving } from '../store/saving';
import { addSystem } from '../store/systems';
import { useAnswer } from '../worker/useAnswer';

/** A new system from a template, each drawn as it would stand on a middling tap. */
const open = defineModel<boolean>({ required: true });
const router = useRouter();
const name = ref('');
const site = ref('');
const template = ref<TemplateId>('marineHousehold');
/** As chosen last; changed here, it is for this one. */
const units = shallowRef(usualUnits());
const SETS = UNIT_PRESETS.map(({ key, title }) => ({ value: key, title }));
const stands = shallowRef<Stands>({ how: 'new', since: null });
const tried = ref(false);
const saving = useSaving();
const busy = ref(false);
/** Why the store did not take it; what was typed stays. */
const refused = ref<string | null>(null);

const { answer: pictures } = useAnswer('templates', () => TEMPLATE_IDS);
const choices = computed(() =>
  TEMPLATE_IDS.map((id) => ({ value: id, title: TEMPLATE_ROWS[id].label, row: TEMPLATE_ROWS[id], picture: pictures.value?.[id] ?? null })),
);

async function create(): Promise<void> {
  tried.value = true;
  if (name.value.trim() === '' || busy.value) return;
  busy.value = true;
  const id = newId();
  const planned = systemFromTemplate({
    id,
    name: name.value.trim(),
    site: site.value.trim() || 'Site',
    template: template.value,
    units: units.value,
    at: new Date().toISOString(),
  });
  const system = withStands(planned, stands.value);
  const kept = await saving.keep('the new system', () => addSystem(system));
  busy.value = false;
  refused.value = kept.ok ? null : `Not saved: ${kept.reason}. ${kept.remedy}`;
  if (!kept.ok) return;
  open.value = false;
  if (stands.value.how === 'new') await router.push({ name: 'water', params: { id }, state: { fresh: true } });
  else await router.push({ name: 'train', params: { id }, query: { ask: 'stands' } });
}
</script>

<template>
  <v-dialog v-model="open" max-width="1120">
    <v-card class="new">
      <h1>New system</h1>
      <form @submit.prevent="create">
        <div class="names">
          <label
            >Name<input v-model="name" autofocus maxlength="80" placeholder="Reef make-up" :aria-invalid="tried && name.trim() === ''"
          /></label>
          <label>Site<input v-model="site" maxlength="80" placeholder="Whose, or where" /></label>
        </div>
        <p v-if="tried && name.trim() === ''" class="wrong" role="alert">Name is empty: a few letters tell it apart in Rounds.</p>
        <div class="named">
          <span>Units</span>
          <Segments
            look="chips"
            label="Units"
            :choices="SETS"
            :model-value="presetOf(units)"
            @update:model-value="units = withPreset(units, $event)"
          />
        </div>
        <StandsChoice v-model="stands" />
        <Segments v-model="template" class="choices" look="cards" label="Starting train" :choices="choices">
          <template #default="{ choice }">
            <span class="words"
              ><strong>{{ choice.row.label }}</strong
              ><span>{{ choice.row.says }}</span
              ><em>{{ GOAL_ROWS[choice.row.goal].label }}</em></span
            >
            <span class="picture"
              ><DescentPicture v-if="choice.picture" :input="choice.picture.input" size="thumb" :sentence="choice.picture.sentence"
            /></span>
          </template>
        </Segments>
        <div class="row end">
          <button class="button" type="button" @click="open = false">Cancel</button>
          <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
          <button class="button primary" type="submit" :disabled="busy">
            {{ stands.how === 'new' ? 'Create and enter its water' : 'Create and say what stands there' }}
          </button>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.new { padding: 18px 20px; overflow: auto; }
form { display: grid; gap: 14px; margin-top: 12px; }
.names { display: grid; grid-template-columns: 1fr 1fr; gap: 12px; }
.names label { display: grid; gap: 3px; font-size: 13.3px; font-weight: 600; color: var(--muted); }
.names input { font: 500 15px var(--digits); color: var(--ink); border: 1px solid var(--line); border-radius: 9px; background: var(--sheet); padding: 8px 11px; min-height: 40px; min-width: 0; }
.named { display: flex; flex-wrap: wrap; align-items: center; gap: 10px; font-size: 13.3px; font-weight: 600; color: var(--muted); }
.wrong { color: var(--bad); font-size: 13.5px; font-weight: 550; margin-top: -8px; }
.choices { display: grid; grid-template-columns: 1fr 1fr; gap: 8px; }
.choices :deep(.card) { display: grid; grid-template-columns: 1fr 132px; gap: 14px; align-items: center; text-align: left; padding: 9px 13px; border: 1px solid var(--line); border-radius: 11px; background: var(--sheet); color: inherit; font: inherit; cursor: pointer; }
.choices :deep(.card[aria-checked='true']) { border-color: var(--action); box-shadow: inset 0 0 0 1px var(--action); background: var(--select); }
.words { display: grid; gap: 1px; }
.words span { font-size: 13.3px; color: var(--muted); }
.words em { font-style: normal; font-size: 13px; color: var(--good); font-weight: 600; }
.end { justify-content: flex-end; position: sticky; bottom: -18px; padding: 10px 0 18px; margin-bottom: -18px; background: var(--sheet); }
@media (max-width: 900px) { .choices { grid-template-columns: 1fr; } }
@media (max-width: 600px) { .names, .choices :deep(.card) { grid-template-columns: 1fr; } .picture { display: none; } }
</style>
