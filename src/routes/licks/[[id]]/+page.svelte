<script lang="ts">
  import LicksScreen from '$lib/licks/LicksScreen.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<svelte:head><title>{data.open?.title ?? 'Licks'} · Corvel</title></svelte:head>

<LicksScreen licks={data.licks} open={data.open} settings={data.settings} />
