<script setup lang="ts">
import { SHORTCUTS } from '../kit/useKeys';

const open = defineModel<boolean>({ required: true });
</script>

<template>
  <v-dialog v-model="open" max-width="440">
    <v-card class="panel-card" title="">
      <h1>Shortcuts</h1>
      <dl>
        <template v-for="[key, does] in SHORTCUTS" :key="key"
          ><dt>
            <kbd>{{ key }}</kbd>
          </dt>
          <dd>{{ does }}</dd></template
        >
      </dl>
      <div class="row"><button class="button" type="button" @click="open = false">Close</button></div>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.panel-card { padding: 18px 20px; }
dl { display: grid; grid-template-columns: 120px 1fr; row-gap: 8px; margin: 14px 0 16px; align-items: center; }
dd { margin: 0; }
.row { justify-content: flex-end; }
</style>
