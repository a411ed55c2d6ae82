<!--
  A chord typed on the strip, over its place. Space goes on in the same bar, | in the next,
  as in the chart's text.
-->
<script lang="ts">
  import { onMount } from 'svelte';
  import { completeChord } from '$core/chords/complete';
  import { asTyped, fromTyped, showSymbol } from '$lib/ui/glyphs';
  import type { Workbench } from './workbench.svelte';

  interface Props {
    readonly workbench: Workbench;
    readonly initial: string;
    /** Whether typing goes on from the initial text; otherwise it replaces it. */
    readonly begun: boolean;
    readonly place: { readonly left: number; readonly top: number };
    /** Called when typing has ended, to hand the focus back. */
    readonly onend: () => void;
  }

  let { workbench, initial, begun, place, onend }: Props = $props();

  // svelte-ignore state_referenced_locally
  let text = $state(initial);
  // svelte-ignore state_referenced_locally
  const mine = workbench.typing;
  let picked = $state(-1);
  let field = $state<HTMLInputElement>();
  let touched = $state(false);

  const offered = $derived(touched ? completeChord(fromTyped(text), workbench.symbols) : []);

  onMount(() => {
    field?.focus();
    if (begun) touched = true;
    else field?.select();
  });

  type Then = Parameters<Workbench['commit']>[1];
  const ENDS: Readonly<Record<string, Then>> = { Enter: 'stop', ' ': 'behind', '|': 'bar' };

  function finish(then: Then) {
    const offer = offered[picked];
    const chosen = offer === undefined ? text : asTyped(offer);
    if (workbench.commit(chosen, then) && then === 'stop') onend();
  }

  function onkeydown(event: KeyboardEvent) {
    event.stopPropagation();
    const { key } = event;
    if (key === 'Escape') {
      workbench.cancel();
      onend();
    } else if (key in ENDS) {
      finish(ENDS[key] ?? 'stop');
    } else if (key === 'Tab') {
      finish(event.shiftKey ? 'previous' : 'next');
    } else if (key === 'ArrowDown' && offered.length > 0) {
      picked = (picked + 1) % offered.length;
    } else if (key === 'ArrowUp' && offered.length > 0) {
      picked = (picked <= 0 ? offered.length : picked) - 1;
    } else return;
    event.preventDefault();
  }
</script>

<div class="absolute z-20 w-40" style:left="{place.left}px" style:top="{place.top}px">
  <input
    bind:this={field}
    bind:value={text}
    class="field heading w-full px-1.5 text-lg shadow-sheet"
    role="combobox"
    aria-label="Chord"
    aria-expanded={offered.length > 0}
    aria-controls="chord-offers"
    aria-autocomplete="list"
    aria-activedescendant={picked >= 0 ? `chord-offer-${picked}` : undefined}
    aria-invalid={workbench.refusal !== ''}
    aria-describedby="workbench-refusal"
    autocomplete="off"
    autocapitalize="off"
    spellcheck="false"
    maxlength="40"
    oninput={() => {
      touched = true;
      picked = -1;
    }}
    {onkeydown}
    onblur={() => {
      // The field also loses the focus when typing has already gone on elsewhere.
      if (workbench.typing === mine && !workbench.commit(text, 'stop')) workbench.cancel();
    }}
  />
  <ul
    id="chord-offers"
    role="listbox"
    aria-label="Chords"
    class="mt-0.5 grid w-60 grid-cols-2 overflow-hidden rounded-sm border border-line bg-sheet shadow-sheet {offered.length ===
    0
      ? 'hidden'
      : ''}"
  >
    {#each offered as symbol, index (symbol)}
      <!-- The field keeps the focus and its keys choose; the pointer is one more way. -->
      <li
        id="chord-offer-{index}"
        role="option"
        aria-selected={index === picked}
        class="cursor-pointer px-1.5 py-0.5 {index === picked
          ? 'bg-ink text-paper'
          : 'hover:bg-line'}"
        onpointerdown={(event) => {
          event.preventDefault();
          picked = index;
          finish('stop');
        }}
      >
        {showSymbol(symbol)}
      </li>
    {/each}
  </ul>
</div>
