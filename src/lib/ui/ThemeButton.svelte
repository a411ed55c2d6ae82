<!-- Light paper or the dark of a stage. -->
<script lang="ts">
  import Moon from '@lucide/svelte/icons/moon';
  import Sun from '@lucide/svelte/icons/sun';
  import { mode, toggleMode } from 'mode-watcher';

  const dark = $derived(mode.current === 'dark');
  const name = $derived(dark ? 'Light theme' : 'Dark theme');
</script>

<button class="button-quiet" onclick={toggleMode} title={name}>
  {#if dark}<Sun size={16} aria-hidden="true" />{:else}<Moon size={16} aria-hidden="true" />{/if}
</button>
