<script lang="ts">
  import PlanScreen from '$lib/plan/PlanScreen.svelte';
</script>

<PlanScreen />
