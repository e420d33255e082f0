<script setup lang="ts">
/** An icon from @mdi/js, drawn in the text's colour. */
defineProps<{ path: string; size?: number }>();
</script>

<template>
  <svg class="icon" viewBox="0 0 24 24" :width="size ?? 18" :height="size ?? 18" aria-hidden="true">
    <path :d="path" fill="currentColor" />
  </svg>
</template>
