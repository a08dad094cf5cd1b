<template>
  <!--
    The key of the main action, where it belongs to something else for the while. A press goes to the button, also when
    the key goes away under it.
  -->
  <kbd class="key pointer-events-none font-sans max-[900px]:hidden" aria-hidden="true">Ctrl ⏎</kbd>
</template>
