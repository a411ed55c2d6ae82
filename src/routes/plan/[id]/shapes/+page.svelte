<script lang="ts">
  import ShapesScreen from '$lib/shapes/ShapesScreen.svelte';
</script>

<ShapesScreen />
