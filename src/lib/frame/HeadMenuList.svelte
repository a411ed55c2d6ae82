<!-- The open menu of a screen. -->
<script lang="ts">
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import { DropdownMenu } from 'bits-ui';
  import type { MenuItem } from './menu';

  interface Props {
    readonly items: readonly MenuItem[];
    /** Told the name of an item whose sheet is wanted, once the menu is gone. */
    readonly onsheet: (name: string) => void;
  }

  let { items, onsheet }: Props = $props();

  /** It is there because it was asked for. */
  let open = $state(true);
  let wanted: string | null = null;
  let trigger = $state<HTMLElement | null>(null);

  function select({ name, run, sheet }: MenuItem) {
    if (sheet) wanted = name;
    else run?.();
  }
  const ITEM =
    'flex min-h-9 cursor-pointer items-center gap-6 rounded px-3 outline-none data-disabled:cursor-default data-disabled:text-ink-soft/60 data-highlighted:bg-line pointer-coarse:min-h-11';
</script>

{#snippet words({ name, keys }: MenuItem)}
  {name}
  {#if keys}<kbd class="ml-auto text-ink-soft">{keys}</kbd>{/if}
{/snippet}

<DropdownMenu.Root bind:open>
  <DropdownMenu.Trigger class="button-quiet" title="Menu" data-menu bind:ref={trigger}>
    <Ellipsis size={20} aria-hidden="true" />
  </DropdownMenu.Trigger>
  <DropdownMenu.Portal>
    <DropdownMenu.Content
      align="end"
      collisionPadding={8}
      class="z-40 max-h-(--bits-dropdown-menu-content-available-height) min-w-56 overflow-y-auto rounded border border-line bg-sheet p-1 text-sm shadow-sheet"
      onCloseAutoFocus={(event) => {
        if (wanted === null) return;
        // The sheet gives the focus back to the menu's button.
        event.preventDefault();
        trigger?.focus();
        onsheet(wanted);
        wanted = null;
      }}
    >
      {#each items as item (item.name)}
        {#if item.begins}<DropdownMenu.Separator class="my-1 border-t border-line" />{/if}
        <DropdownMenu.Item
          class="{ITEM} {item.small ? 'sm:hidden' : ''}"
          disabled={item.disabled ?? false}
          onSelect={() => select(item)}
        >
          {#snippet child({ props })}
            {#if item.href}
              <a {...props} href={item.href}>{@render words(item)}</a>
            {:else}
              <div {...props}>{@render words(item)}</div>
            {/if}
          {/snippet}
        </DropdownMenu.Item>
      {/each}
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
</DropdownMenu.Root>
