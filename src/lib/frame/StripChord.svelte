<!-- A chord of the strip: its symbol and numeral, what is played over it, and how its target landed. -->
<script lang="ts">
  import type { PlayedChord } from '$core/chart/form';
  import type { Cadence } from '$core/harmony/cadences';
  import type { ChordReading } from '$core/harmony/reading';
  import { roleName } from '$core/harmony/roleWords';
  import type { Landing } from '$core/listening/landings';
  import type { ModeNaming } from '$lib/settings/settings';
  import { INTENT_NAMES, type PlannedChord } from '$lib/study/choices';
  import { showSymbol } from '$lib/ui/glyphs';
  import IntentMark from './IntentMark.svelte';
  import { nameInRoom, showMaterial } from './material';
  import { showCadence } from './strip';

  interface Props {
    readonly played: PlayedChord;
    readonly read: ChordReading | undefined;
    readonly cadence: Cadence | undefined;
    /** What is played over it; left out where its line is shut. */
    readonly plan: PlannedChord | undefined;
    /** How much of that the chord before had too, 0–1; null for the very first. */
    readonly shared: number | null;
    readonly time: 'now' | 'next' | null;
    /** Whether Tab comes to it. */
    readonly stops: boolean;
    readonly open: boolean;
    readonly roomy: boolean;
    readonly names: 'symbols' | 'numerals';
    readonly naming: ModeNaming;
    /** Pixels the name of its material has. */
    readonly room: number;
    readonly landing: Landing | undefined;
    readonly ongo: (index: number) => void;
    readonly onedit: (index: number) => void;
  }

  let {
    played,
    read,
    cadence,
    plan,
    shared,
    time,
    stops,
    open,
    roomy,
    names,
    naming,
    room,
    landing,
    ongo,
    onedit,
  }: Props = $props();

  const index = $derived(played.index);
  const symbol = $derived(showSymbol(played.chord.symbol));
  const numeral = $derived(showSymbol(read?.numeral ?? ''));
  const [large, small] = $derived(names === 'symbols' ? [symbol, numeral] : [numeral, symbol]);
  const whole = $derived(plan ? showMaterial(plan.material, naming) : '');
  /** How its material is written; nothing where the same notes go on. */
  const written = $derived(plan && shared !== 1 ? nameInRoom(whole, room) : '');
  const lands = $derived(landing ? showSymbol(landing.sentence) : '');

  /** What is seen comes first. Hidden text in each chord would be drawn apart, and is said here instead. */
  const spoken = $derived.by(() => {
    const parts = [
      [large, small, written].filter(Boolean).join(' '),
      written === whole ? '' : whole,
      plan ? `intent: ${INTENT_NAMES[plan.intent][0]}` : '',
      time ?? '',
      lands,
    ];
    return `Bar ${played.bar}: ${parts.filter(Boolean).join(', ')}`;
  });
  const role = $derived(
    [cadence ? showCadence(cadence) : '', read?.role ? showSymbol(roleName(read.role)) : '']
      .filter(Boolean)
      .join(' · '),
  );
</script>

<button
  data-chord={index}
  tabindex={stops ? 0 : -1}
  data-time={time ?? undefined}
  aria-current={time === 'now' ? 'true' : undefined}
  title={role || undefined}
  aria-label={spoken}
  class="flex min-w-min flex-col items-start rounded-sm px-1.5 text-left focus-visible:-outline-offset-2 {cadence ||
  landing
    ? 'relative'
    : ''} {open ? 'border-2' : 'border-x-2'} {time === 'now'
    ? 'border-now bg-now text-on-now'
    : time === 'next'
      ? `border-next ${open ? '' : 'shadow-[inset_0_2px_var(--next),inset_0_-2px_var(--next)]'}`
      : 'border-transparent hover:border-line'}"
  style:flex="{played.beats} 1 0"
  onclick={() => ongo(index)}
  ondblclick={() => onedit(index)}
>
  {#if cadence}
    <span
      aria-hidden="true"
      class="absolute -top-0.5 h-1 border-t border-ink-soft {cadence.from === index
        ? 'left-0 border-l'
        : '-left-1'} {cadence.to === index ? 'right-1 border-r' : '-right-1'}"
    ></span>
  {/if}
  <span
    class="heading whitespace-nowrap {open && roomy
      ? 'text-lg/[1.4rem]'
      : open
        ? 'text-base/[1.4rem] tracking-tight'
        : 'text-base/[1.15rem] tracking-tight'}">{large || '\u00a0'}</span
  >
  <!-- A numeral longer than its chord has room ends in dots and is whole in its title; a symbol is never cut. -->
  <span
    class="text-xs/[1.05rem] whitespace-nowrap {names === 'symbols'
      ? 'w-0 min-w-full overflow-hidden text-ellipsis'
      : ''} {open ? '' : 'hidden'} {time === 'now' ? '' : 'text-ink-soft'} {read?.diatonic === false
      ? 'italic'
      : ''}"
    title={names === 'symbols' ? small : undefined}>{small || '\u00a0'}</span
  >
  {#if plan}
    <span
      class="flex h-[15px] w-full min-w-0 items-center gap-1 overflow-hidden text-[11px]/[15px] {time ===
      'now'
        ? ''
        : 'text-ink-soft'}"
      data-material={index}
      data-name={whole}
    >
      <IntentMark intent={plan.intent} />
      {#if shared === 1}
        <span aria-hidden="true" class="h-0.5 flex-1 bg-current/50" title="the same notes"></span>
      {:else}
        <!-- Wider the more of its notes the chord before had too. -->
        {#if shared !== null}<span
            aria-hidden="true"
            class="h-0.5 shrink-0 bg-current"
            style:width="{Math.round(shared * 12)}px"
            title="{Math.round(shared * 100)} % of these notes are in the previous chord too"
          ></span>{/if}
        <span class="w-0 flex-1 whitespace-nowrap" title={whole}
          ><span aria-hidden="true">{written}</span></span
        >
      {/if}
    </span>
  {/if}
  {#if landing}
    {@const landed = landing.verdict === 'landed'}
    <!-- The target's pennant: full where it landed, empty and struck out where not. -->
    <svg
      class="absolute right-0.5 bottom-0.5 stroke-current {landed ? 'fill-current' : 'fill-none'}"
      width="14"
      height="14"
      viewBox="0 0 14 14"
      stroke-width="1.5"
      role="img"
      aria-label={lands}
      data-landing={landing.verdict}
    >
      <title>{lands}</title>
      <path d="M3 13 V1 L12 4.5 L3 8" />
      {#if !landed}<path d="M1 12 L13 2" />{/if}
    </svg>
  {/if}
</button>
