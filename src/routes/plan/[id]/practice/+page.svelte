<script lang="ts">
  import PracticeScreen from '$lib/practice/PracticeScreen.svelte';
</script>

<PracticeScreen />
