<!-- What to land on: preferences, the way through, its alternatives, and each step in words. -->
<script lang="ts">
  import type { Chart } from '$core/chart/form';
  import { CONTOURS, type Preference } from '$core/targets/kinds';
  import { PART_WORDS, ROUTE_PARTS } from '$core/targets/weights';
  import { showSymbol } from '$lib/ui/glyphs';
  import RouteThumbnail from './RouteThumbnail.svelte';
  import type { PlanSession } from './session.svelte';
  import type { Targets } from './targets.svelte';

  interface Props {
    readonly session: PlanSession;
    readonly targets: Targets;
    readonly chart: Chart;
  }

  let { session, targets, chart }: Props = $props();

  const PREFERENCES: readonly (readonly [string, readonly Preference[]])[] = [
    ['thirds, then sevenths', ['3', '7']],
    ['sevenths, then thirds', ['7', '3']],
    ['the nearest definer', ['definers']],
    ['roots', ['1']],
    ['fifths', ['5']],
    ['ninths, then thirds', ['9', '3']],
  ];
  const CONTOUR_NAMES = {
    level: 'level',
    rising: 'rising',
    falling: 'falling',
    arch: 'up and down again',
  } as const;

  const settings = $derived(session.plan.targets);
  const preferred = $derived(settings.prefer.join(' '));
  const now = $derived(targets.stopAt(session.now?.index));
  const next = $derived(targets.stopAt(session.next?.index));
  const pins = $derived(Object.keys(session.plan.pins).length);
  const costs = $derived(
    targets.chosen
      ? ROUTE_PARTS.filter((part) => (targets.chosen?.parts[part] ?? 0) > 0).map(
          (part) => `${PART_WORDS[part]} ${targets.chosen?.parts[part]}`,
        )
      : [],
  );
</script>

<div class="flex flex-col gap-1.5 text-sm" data-targets={targets.settled ? 'settled' : 'solving'}>
  <div class="flex flex-wrap gap-1.5">
    <label>
      <span class="sr-only">Land on</span>
      <select
        class="field min-h-8 px-1"
        value={preferred}
        onchange={(event) => {
          const picked = PREFERENCES.find(
            ([, prefer]) => prefer.join(' ') === event.currentTarget.value,
          );
          if (picked) session.changeTargets({ prefer: [...picked[1]], chosen: 0 });
        }}
      >
        {#each PREFERENCES as [name, prefer] (name)}
          <option value={prefer.join(' ')}>{name}</option>
        {/each}
      </select>
    </label>
    <label>
      <span class="sr-only">Contour</span>
      <select
        class="field min-h-8 px-1"
        value={settings.contour ?? ''}
        onchange={(event) => {
          const picked = CONTOURS.find((contour) => contour === event.currentTarget.value);
          session.changeTargets({ contour: picked ?? null, chosen: 0 });
        }}
      >
        <option value="">any contour</option>
        {#each CONTOURS as contour (contour)}
          <option value={contour}>{CONTOUR_NAMES[contour]}</option>
        {/each}
      </select>
    </label>
    <label class="flex items-center gap-1.5">
      <input
        type="checkbox"
        checked={settings.free}
        onchange={(event) =>
          session.changeTargets({ free: event.currentTarget.checked, chosen: 0 })}
      />
      leave the zone
    </label>
  </div>
  {#if targets.progress !== null}
    <p class="flex items-center gap-2">
      <progress class="flex-1" max="1" value={targets.progress}>solving</progress>
      <button class="underline" onclick={targets.cancel}>Stop</button>
    </p>
  {/if}
  {#if now}<p data-step="now">
      <span class="font-semibold text-now-text">Now</span>
      {showSymbol(now.sentence)}
    </p>{/if}
  {#if next}<p data-step="next">
      <span class="font-semibold text-next-text">Next</span>
      {showSymbol(next.sentence)}
    </p>{/if}
  <ul class="grid grid-cols-2 gap-1.5" aria-label="Ways through the form, the best first">
    {#each targets.routes as route, index (index)}
      <li>
        <button
          class="w-full rounded border px-1.5 py-0.5 text-left {route === targets.chosen
            ? 'border-ink text-ink'
            : 'border-line text-ink-soft'}"
          aria-pressed={route === targets.chosen}
          aria-label="Way {index + 1}, cost {route.cost}"
          title="Cost {route.cost}"
          onclick={() => targets.choose(index)}
        >
          <RouteThumbnail {route} {chart} />
        </button>
      </li>
    {/each}
  </ul>
  {#if costs.length > 0}
    <p class="text-xs text-ink-soft">It costs: {costs.join(', ')}.</p>
  {/if}
  {#if pins > 0}
    <p class="text-xs">
      {pins === 1 ? 'One target is' : `${pins} targets are`} pinned.
      <button class="underline" onclick={session.unpin}>Let go</button>
    </p>
  {/if}
</div>
