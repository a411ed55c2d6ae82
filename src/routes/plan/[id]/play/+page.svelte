<script lang="ts">
  import PlayScreen from '$lib/play/PlayScreen.svelte';
</script>

<PlayScreen />
