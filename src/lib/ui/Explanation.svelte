<!--
  Explains in place: whatever carries a `data-explain` shows that sentence beside itself, and is
  described by it, when it is pointed at, focused or pressed.
-->
<script lang="ts">
  import { onMount } from 'svelte';

  /** How long the pointer rests before an explanation comes, in milliseconds. */
  const REST = 350;
  const GAP = 6;
  const ID = 'explanation';

  let said = $state.raw<{ readonly text: string; readonly left: number }>();
  let tip = $state<HTMLElement>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  let of: Element | null = null;

  const explained = (target: EventTarget | null): Element | null =>
    target instanceof Element ? target.closest('[data-explain]') : null;

  function show(element: Element) {
    hide();
    of = element;
    of.setAttribute('aria-describedby', ID);
    const box = element.getBoundingClientRect();
    said = {
      text: element.getAttribute('data-explain') ?? '',
      left: box.left,
    };
  }

  function hide() {
    clearTimeout(timer);
    of?.removeAttribute('aria-describedby');
    of = null;
    said = undefined;
  }

  // Over its word, clear of what is pressed next, which is mostly under it; kept inside the window.
  $effect(() => {
    if (!said || !tip || !of) return;
    const { width, height } = tip.getBoundingClientRect();
    const box = of.getBoundingClientRect();
    const left = Math.max(GAP, Math.min(said.left, innerWidth - width - GAP));
    const above = box.top - height - GAP;
    tip.style.left = `${left}px`;
    tip.style.top = `${above >= 0 ? above : box.bottom + GAP}px`;
  });

  /** Whether a pointer rests on the explanation itself, or on its way there from the word. */
  function isOnTip({ clientX, clientY }: PointerEvent): boolean {
    const box = tip?.getBoundingClientRect();
    if (!box) return false;
    const across = clientX >= box.left - GAP && clientX <= box.right + GAP;
    return across && clientY >= box.top - GAP && clientY <= box.bottom + GAP;
  }

  function onpointerover(event: PointerEvent) {
    const element = explained(event.target);
    if (said && (element === of || isOnTip(event))) return;
    clearTimeout(timer);
    if (element && event.pointerType !== 'touch') timer = setTimeout(() => show(element), REST);
  }

  // It takes no clicks, which go to what is under it; so where the pointer goes is watched.
  function onpointermove(event: PointerEvent) {
    const left = of !== document.activeElement && explained(event.target) !== of;
    if (said && left && !isOnTip(event)) hide();
  }

  const onpressed = (event: Event) => {
    const element = explained(event.target);
    if (element) show(element);
    else hide();
  };

  function onfocusin(event: FocusEvent) {
    const element = explained(event.target);
    if (element?.matches(':focus-visible')) show(element);
  }

  // What is pressed takes the focus from what had it, which is no reason to say less of it.
  function onfocusout(event: FocusEvent) {
    if (event.target instanceof Node && of?.contains(event.target)) hide();
  }

  function onkeydown(event: KeyboardEvent) {
    if (event.key !== 'Escape' || !said) return;
    event.stopPropagation();
    hide();
  }

  onMount(() => {
    // Before whatever else Escape would close.
    window.addEventListener('keydown', onkeydown, { capture: true });
    return () => {
      window.removeEventListener('keydown', onkeydown, { capture: true });
      clearTimeout(timer);
    };
  });
</script>

<svelte:window
  {onpointerover}
  {onpointermove}
  onpointerdown={onpressed}
  {onfocusin}
  {onfocusout}
  onscrollcapture={hide}
/>

{#if said}
  <div
    bind:this={tip}
    id={ID}
    role="tooltip"
    class="pointer-events-none fixed z-60 max-w-80 rounded border border-line-strong bg-sheet px-2.5 py-1.5 text-sm text-ink shadow-sheet"
    data-explanation
  >
    {said.text}
  </div>
{/if}
