<!-- Showing only one degree of every chord, or the targets. -->
<script lang="ts">
  import { getStudy } from '$lib/study/study.svelte';
  import { ONLY_NAMES, SHOWN_ONLY } from '$lib/study/view';

  const study = getStudy();
  const only = $derived(study.view.only);
</script>

<label class="text-sm">
  <span class="sr-only">Show only</span>
  <select
    class="field {only === 'all' ? '' : 'border-ink font-bold'}"
    title="Show only (Y)"
    name="only"
    value={only}
    onchange={(event) => {
      const picked = SHOWN_ONLY.find((one) => one === event.currentTarget.value);
      if (picked) study.look({ only: picked });
    }}
  >
    {#each SHOWN_ONLY as one (one)}<option value={one}>{ONLY_NAMES[one]}</option>{/each}
  </select>
</label>
