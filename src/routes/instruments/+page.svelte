<script lang="ts">
  import InstrumentsScreen from '$lib/settings/InstrumentsScreen.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<InstrumentsScreen stored={data.settings} />
