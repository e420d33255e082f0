<script setup lang="ts"></script>

<template>
  <main></main>
</template>
