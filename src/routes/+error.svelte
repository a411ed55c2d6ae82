<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>{page.status === 404 ? 'Not found' : 'Not shown'} · Corvel</title></svelte:head>

<main class="mx-auto max-w-xl p-8">
  <h1 class="heading mb-3 text-2xl">
    {page.status === 404 ? 'Not found' : 'That did not work'}
  </h1>
  <p class="mb-6">{page.error?.message}</p>
  <!-- A whole load: the page that failed may be what would fail again. -->
  <a class="button" href="/" data-sveltekit-reload>Back to the Book</a>
  {#if page.status !== 404}
    <button class="button" onclick={() => location.reload()}>Try again</button>
  {/if}
</main>
