<script lang="ts">
  import SettingsScreen from '$lib/screens/SettingsScreen.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<SettingsScreen stored={data.settings} />
