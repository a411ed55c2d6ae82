<script lang="ts">
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>{data.title} · Corvel</title></svelte:head>

<main class="manual mx-auto max-w-3xl p-4 sm:p-8">
  <!-- Our own words, from docs/. -->
  <!-- eslint-disable-next-line svelte/no-at-html-tags -->
  {@html data.html}
</main>
