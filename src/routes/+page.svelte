<script lang="ts">
  import Book from '$lib/book/Book.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>Book · Corvel</title></svelte:head>

<Book charts={data.charts} />
