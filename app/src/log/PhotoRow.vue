<script setup lang="ts">
import { computedAsync } from '@vueuse/core';
import { ref, useTemplateRef } from 'vue';
import { useNotice } from '../kit/useNotice';
import { keepPhoto, photoUrl } from '../store/photos';
import { useSaving } from '../store/saving';

/** Pictures of a reading, and the way to add one: kept in this browser, scaled down. */
const props = defineProps<{ systemId: string; readingId: string; photos: readonly string[] }>();
const emit = defineEmits<{ change: [photos: string[]] }>();
const saving = useSaving();
const notice = useNotice();
const picker = useTemplateRef<HTMLInputElement>('picker');
const busy = ref(false);
const shown = computedAsync(() => Promise.all(props.photos.map(async (id) => ({ id, url: await photoUrl(id) }))), []);
const MOST = 12;
async function add(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  busy.value = true;
  const kept = await saving.keep('the picture', () => keepPhoto(file, props.systemId, props.readingId));
  busy.value = false;
  if (kept.ok) emit('change', [...props.photos, kept.value]);
  else notice.say(`Not kept: ${kept.reason}. ${kept.remedy}`);
}
</script>

<template>
  <div class="photos" aria-label="Pictures">
    <figure v-for="photo in shown" :key="photo.id">
      <img v-if="photo.url" :src="photo.url" alt="Picture taken with this reading" />
      <span v-else class="muted small">Kept in another browser</span>
      <button
        type="button"
        class="button small"
        aria-label="Remove picture"
        @click="
          emit(
            'change',
            photos.filter((id) => id !== photo.id),
          )
        "
      >
        Remove
      </button>
    </figure>
    <button v-if="photos.length < MOST" type="button" class="button small" :disabled="busy" @click="picker?.click()">Add a picture</button>
    <input ref="picker" type="file" accept="image/*" capture="environment" hidden aria-label="Picture" @change="add" />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.photos { display: flex; gap: 10px; flex-wrap: wrap; align-items: end; }
figure { margin: 0; display: grid; gap: 4px; }
img { height: 92px; border-radius: 8px; border: 1px solid var(--line); display: block; }
@media (max-width: 860px) { .button { min-height: 44px; } }
</style>
