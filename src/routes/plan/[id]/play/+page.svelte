<script lang="ts">
  import { page } from '$app/state';
  import PlayScreen from '$lib/play/PlayScreen.svelte';
</script>

<!-- Two blocks of a session may be of the same chart: each is set up anew. -->
{#key page.url.searchParams.get('block')}
  <PlayScreen />
{/key}
