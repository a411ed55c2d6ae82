<script lang="ts">
  import { Dialog } from 'bits-ui';
  import type { Snippet } from 'svelte';

  interface Props {
    open: boolean;
    readonly title: string;
    readonly children: Snippet;
    readonly dismissible?: boolean;
    /** Whether it takes the width of two columns where there is room for it. */
    readonly wide?: boolean;
    /** Gives the focus back to where it was before; false where that is gone. */
    readonly back: (() => boolean) | null;
  }

  let {
    open = $bindable(),
    title,
    children,
    dismissible = true,
    wide = false,
    back,
  }: Props = $props();
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/40" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-50 max-h-[90dvh] -translate-1/2 overflow-y-auto rounded-md border border-line bg-sheet p-5 text-ink shadow-sheet {wide
        ? 'w-[min(60rem,calc(100vw-2rem))]'
        : 'w-[min(34rem,calc(100vw-2rem))]'}"
      onCloseAutoFocus={(event) => {
        if (back?.()) event.preventDefault();
      }}
      escapeKeydownBehavior={dismissible ? 'close' : 'ignore'}
      interactOutsideBehavior={dismissible ? 'close' : 'ignore'}
    >
      <Dialog.Title class="heading mb-3 text-xl">{title}</Dialog.Title>
      {@render children()}
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
