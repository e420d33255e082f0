<script setup lang="ts">
/** The bar every page stands under: mark, title, whatever belongs in the middle, and the tools. */
defineProps<{ title: string; subtitle: string }>();
</script>

<template>
  <header class="bar">
    <RouterLink to="/" class="mark" aria-label="Yes Clear, to Rounds">
      <svg width="24" height="24" viewBox="0 0 24 24" aria-hidden="true">
        <path d="M2 7h6l5 7h6" fill="none" stroke="currentColor" stroke-width="3" stroke-linecap="round" stroke-linejoin="round" />
        <circle cx="19" cy="19.4" r="3.2" fill="#3f9fc8" />
      </svg>
      <span>Yes Clear</span>
    </RouterLink>
    <div class="title">
      <strong>{{ title }}</strong>
      <span>{{ subtitle }}</span>
    </div>
    <div class="middle"><slot /></div>
    <div class="tools"><slot name="tools" /></div>
  </header>
</template>

<!-- prettier-ignore -->
<style scoped>
.bar { position: sticky; top: 0; z-index: 20; height: var(--header); display: flex; align-items: center; gap: 18px; padding: 0 20px; background: var(--paper); border-bottom: 1px solid var(--line); }
.mark { display: flex; align-items: center; gap: 7px; color: var(--ink); text-decoration: none; font-size: 19px; font-weight: 750; letter-spacing: -0.01em; white-space: nowrap; }
.title { display: grid; line-height: 1.22; min-width: 0; }
.title strong { font-size: 14.6px; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
.title span { font-size: 13px; color: var(--muted); white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
.middle { flex: 1; display: flex; justify-content: center; min-width: 0; }
.tools { display: flex; gap: 10px; align-items: center; }
@media (max-width: 1120px) { .mark span { display: none; } .bar { gap: 14px; } }
@media (max-width: 860px) {
  .bar { padding: 0 12px; gap: 10px; }
  .title { flex: 1; }
  .middle { flex: 0; }
  .tools { gap: 6px; }
}
</style>
