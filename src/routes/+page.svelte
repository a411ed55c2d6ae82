<script lang="ts">
  import Book from '$lib/book/Book.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>Book · Corvel</title></svelte:head>

{#if data.limited}
  <p role="alert" class="px-4 py-2 font-semibold text-now-text">
    {data.limited === 'full' ? 'The disk is full' : 'The data folder is read-only'}: charts can be
    read, but no change is kept. <a class="underline" href="/recover">What to do</a>
  </p>
{/if}
<Book charts={data.charts} sketches={data.sketches} settings={data.settings} next={data.next} />
