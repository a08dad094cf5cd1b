<script setup lang="ts">
const props = defineProps<{ error: { statusCode?: number; status?: number; message?: string } }>()
const missing = computed(() => (props.error.statusCode ?? props.error.status) === 404)
</script>

<template>
  <main class="mx-auto max-w-[720px] px-6 py-20">
    <h1 class="sentence">
      {{ missing ? 'There is nothing here, or it is not for you to see.' : 'Something went wrong in Rekko.' }}
    </h1>
    <p class="mt-3 text-ink2">
      {{
        missing
          ? 'The address may have been cut short, or the document belongs to somebody else.'
          : 'Nothing you typed is lost. Try again; if it comes back, tell an administrator.'
      }}
    </p>
    <p class="mt-6"><a class="action" href="/">Back to where things wait</a></p>
  </main>
</template>
