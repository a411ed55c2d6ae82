<!-- A button that opens a small sheet beside it. -->
<script lang="ts">
  import { Popover } from 'bits-ui';
  import type { Snippet } from 'svelte';

  interface Props {
    open?: boolean;
    /** What the sheet is called; the button too, where its own words are not enough. */
    readonly label: string;
    readonly named?: boolean;
    readonly title?: string;
    readonly button?: string;
    /** Classes of the sheet: its width and how it lays itself out. */
    readonly sheet: string;
    readonly side?: 'top' | 'bottom';
    readonly align?: 'start' | 'end';
    /** What the button shows; without it the sheet is opened from elsewhere. */
    readonly trigger?: Snippet;
    /** What the sheet stands beside, where it has no button of its own. */
    readonly anchor?: HTMLElement | undefined;
    readonly children: Snippet;
    /** Gives the focus back to where it was before; false where that is gone. */
    readonly back: (() => boolean) | null;
  }

  let {
    open = $bindable(false),
    label,
    named = false,
    title,
    button,
    sheet,
    side = 'top',
    align = 'end',
    trigger,
    anchor,
    children,
    back,
  }: Props = $props();

  let opener = $state<HTMLElement | null>(null);
</script>

<Popover.Root bind:open>
  {#if trigger}
    <Popover.Trigger
      class={button}
      {title}
      aria-label={named ? label : undefined}
      bind:ref={opener}
    >
      {#snippet child({ props })}
        <!-- The browser's own keys: Space plays where the screen has a band, this button in focus or not. -->
        <button {...props} onkeydown={undefined}>{@render trigger()}</button>
      {/snippet}
    </Popover.Trigger>
  {/if}
  <Popover.Portal>
    <Popover.Content
      {side}
      {align}
      customAnchor={anchor ?? null}
      sideOffset={6}
      role="dialog"
      aria-label={label}
      collisionPadding={8}
      onCloseAutoFocus={(event) => {
        if (back?.()) event.preventDefault();
        else if (opener) {
          // The button that had the focus was the one before this had come.
          event.preventDefault();
          opener.focus();
        }
      }}
      class="z-40 max-h-(--bits-popover-content-available-height) max-w-(--bits-popover-content-available-width) overflow-auto rounded-md border border-line bg-sheet p-4 text-sm shadow-sheet {sheet}"
    >
      {@render children()}
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
