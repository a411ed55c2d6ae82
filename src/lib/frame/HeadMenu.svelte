<!-- The one menu of a screen, and the sheets that are opened from it. The menu comes when it is first opened. -->
<script lang="ts">
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import Popover from '$lib/ui/Popover.svelte';
  import type HeadMenuList from './HeadMenuList.svelte';
  import type { MenuItem } from './menu';

  interface Props {
    readonly items: readonly MenuItem[];
    /** The name of the item whose sheet is open; null for none. */
    sheet?: string | null;
  }

  let { items, sheet = $bindable(null) }: Props = $props();

  let List = $state.raw<typeof HeadMenuList | null>(null);
  let anchor = $state<HTMLElement>();

  async function open() {
    List = (await import('./HeadMenuList.svelte')).default;
  }
</script>

<span class="relative inline-flex shrink-0" bind:this={anchor}>
  {#if List}
    <List {items} onsheet={(name) => (sheet = name)} />
  {:else}
    <button
      class="button-quiet"
      title="Menu"
      aria-haspopup="menu"
      aria-expanded="false"
      data-menu
      onclick={open}
    >
      <Ellipsis size={20} aria-hidden="true" />
    </button>
  {/if}
</span>
{#each items as { name, sheet: own } (name)}
  {#if own}
    <Popover
      label={name}
      sheet={own.look}
      side="bottom"
      {anchor}
      bind:open={() => sheet === name, (opened) => (sheet = opened ? name : null)}
    >
      {@render own.content()}
    </Popover>
  {/if}
{/each}
