<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import FindingCard from '../kit/FindingCard.vue';
import HeaderBar from '../kit/HeaderBar.vue';
import TroubleBar from '../kit/TroubleBar.vue';
import { useSaving } from '../store/saving';
import { useStoreState } from '../store/storeState';
import { keepLink, readLink, type LinkOutcome } from '../store/transfer';
import { dayOfYear } from '../time/dates';

/** What a scanned or copied link carries: shown first, kept only when somebody says so. */
const route = useRoute();
const router = useRouter();
const saving = useSaving();
const outcome = shallowRef<LinkOutcome | null>(null);
const busy = ref(false);
const store = useStoreState();
watch(
  () => route.hash,
  async (hash) => {
    outcome.value = null;
    // What is here is looked at once the store stands.
    await store.ready;
    const text = hash.replace(/^#/, '');
    outcome.value =
      text === ''
        ? { ok: false, message: 'This link carries nothing: scan or copy it again, with all that stands behind #.' }
        : await readLink(text).catch((failure: unknown) => ({
            ok: false as const,
            message: `This link could not be read (${failure instanceof Error ? failure.message : String(failure)}).`,
          }));
  },
  { immediate: true },
);
const plan = computed(() => (outcome.value?.ok ? outcome.value.plan : null));
const system = computed(() => plan.value?.there.system ?? null);
const stages = computed(() => system.value?.train.stages.map(({ name }) => name).join(', ') ?? '');
async function keep(how: 'new' | 'both' | 'take'): Promise<void> {
  const now = plan.value;
  if (!now) return;
  busy.value = true;
  const kept = await saving.keep('the system of the link', () => keepLink(now, how));
  busy.value = false;
  if (kept.ok) void router.replace(`/system/${kept.value}/train`);
}
</script>

<template>
  <div>
    <HeaderBar title="A system from a link" subtitle="Nothing is kept before you say so" />
    <TroubleBar />
    <main class="open">
      <p v-if="outcome === null" class="muted" role="status">Reading the link…</p>
      <template v-else-if="!outcome.ok">
        <FindingCard :finding="{ severity: 'bad', title: 'This link opens no system', why: outcome.message }" />
        <RouterLink class="button" to="/">To Rounds</RouterLink>
      </template>
      <section v-else-if="system && plan" class="sheet panel">
        <h1>{{ system.name }}</h1>
        <p class="muted">{{ system.site }} · as it was edited on {{ dayOfYear(system.updatedAt) }}</p>
        <p>{{ system.train.stages.length }} stages: {{ stages }}.</p>
        <template v-if="plan.here">
          <p>
            {{
              plan.differs
                ? 'This browser has this system, and its design is another. What was logged and done here stays in any case.'
                : 'This browser has this system already, with the same design.'
            }}
          </p>
          <div class="row">
            <RouterLink class="button primary" :to="`/system/${plan.here.system.id}/train`">Open the one here</RouterLink>
            <button v-if="plan.differs" class="button" type="button" :disabled="busy" @click="keep('take')">
              Take the link’s design into it
            </button>
            <button v-if="plan.differs" class="button" type="button" :disabled="busy" @click="keep('both')">Keep both</button>
          </div>
        </template>
        <template v-else>
          <p>Kept, it is a system of this browser like any other: design, water, goal and prices, without a log.</p>
          <div class="row">
            <button class="button primary" type="button" :disabled="busy" @click="keep('new')">Keep it in this browser</button>
            <RouterLink class="button" to="/">Do not keep it</RouterLink>
          </div>
        </template>
      </section>
    </main>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.open { max-width: 720px; margin: 24px auto; padding: 0 16px; display: grid; gap: 14px; justify-items: start; }
.panel { padding: 18px 22px 20px; display: grid; gap: 10px; width: 100%; box-sizing: border-box; }
@media (max-width: 860px) { .button { min-height: 48px; } }
</style>
