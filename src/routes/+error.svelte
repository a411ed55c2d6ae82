<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>Not found · Corvel</title></svelte:head>

<main class="mx-auto max-w-xl p-8">
  <h1 class="heading mb-3 text-2xl">
    {page.status === 404 ? 'Not found' : 'That did not work'}
  </h1>
  <p class="mb-6">{page.error?.message}</p>
  <a class="button" href="/">Back to the Book</a>
</main>
