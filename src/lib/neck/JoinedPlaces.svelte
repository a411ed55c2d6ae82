<!-- The voices of a triad or a grip, joined by a line under the notes. -->
<script lang="ts">
  import type { Layer } from '$core/neck/layers';
  import type { NeckLayout } from './layout';

  interface Props {
    readonly layer: Layer;
    readonly layout: NeckLayout;
  }

  let { layer, layout }: Props = $props();

  const points = $derived(
    layer.joined
      .map(({ fret, string }) => `${layout.finger(fret)},${layout.string(string)}`)
      .join(' '),
  );
</script>

{#if layer.joined.length > 0}
  <polyline
    class="fill-none stroke-ink opacity-45"
    stroke-width={layer.kind === 'triad' ? 7 : 4}
    stroke-dasharray={layer.kind === 'triad' ? undefined : '2 5'}
    stroke-linecap="round"
    stroke-linejoin="round"
    {points}
  />
{/if}
