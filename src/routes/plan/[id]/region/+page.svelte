<script lang="ts">
  import RegionScreen from '$lib/shapes/RegionScreen.svelte';
</script>

<RegionScreen />
