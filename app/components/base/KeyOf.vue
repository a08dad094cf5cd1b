<template>
  <!-- The key of the main action, where it belongs to something else for the while. -->
  <kbd class="key font-sans max-[900px]:hidden" aria-hidden="true">Ctrl ⏎</kbd>
</template>
