<script setup lang="ts">
import { OFFERED, type StageKind } from '@yes-clear/core/stage';
import { ref } from 'vue';
import { focusMenu } from '../../kit/focusMenu';
import { useKey } from '../../kit/useKeys';

/** Every kind of stage there is, to put one where it belongs. */
defineEmits<{ add: [kind: StageKind, variant: string | null] }>();
const open = ref(false);
useKey('a', () => {
  open.value = true;
  focusMenu(true);
});
</script>

<template>
  <v-menu v-model="open" location="bottom end" @update:model-value="focusMenu">
    <template #activator="{ props: activator }"
      ><button class="button primary" type="button" v-bind="activator">Add stage <kbd>A</kbd></button></template
    >
    <v-list>
      <v-list-item
        v-for="{ kind, variant, label, says } in OFFERED"
        :key="label"
        :title="label"
        :subtitle="says"
        @click="
          open = false;
          $emit('add', kind, variant);
        "
      />
    </v-list>
  </v-menu>
</template>
