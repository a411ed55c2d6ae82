<!-- Keeps the pass that is over: as notes, and on wish with its sound, whose size is said before. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Ear } from '$lib/listening/ear.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { message, warn } from '$lib/ui/messages.svelte';
  import { bytesName } from '$lib/ui/amounts';
  import type { PassLandings } from '$lib/stage/judging';
  import { getStage } from '$lib/stage/stage.svelte';

  interface Props {
    readonly ear: Ear;
    readonly pass: PassLandings;
    readonly onkept: () => void;
  }

  let { ear, pass, onkept }: Props = $props();

  const study = getStudy();
  const stage = getStage();

  /** Bytes of a sample in a WAV file of 16 bits. */
  const SAMPLE = 2;
  let keptPass = $state.raw<PassLandings | null>(null);
  const size = $derived(
    pass.span && ear.state === 'hearing' ? (pass.span.to - pass.span.from) * ear.rate * SAMPLE : 0,
  );

  async function keep(withSound: boolean) {
    const { span } = pass;
    keptPass = pass;
    const sound = withSound && span ? ear.soundOf(span.from, span.to) : null;
    const kept = await import('./take')
      .then(({ keepTake }) => keepTake(study, stage, pass, sound))
      .catch((error: unknown) => {
        // It may be kept once more; what went wrong is told by the page.
        keptPass = null;
        throw error;
      });
    if ('refused' in kept) {
      keptPass = null;
      warn(kept.refused);
      return;
    }
    if (kept.waiting) {
      message('The take waits in this browser and is sent when the server is back.');
      return;
    }
    onkept();
    message('The take is kept with the chart.', {
      duration: 10_000,
      action: { label: 'Open it', onClick: () => void goto(`/licks/${kept.id}`) },
    });
  }
</script>

{#if pass.taken.length > 0 && keptPass !== pass}
  <button class="underline" onclick={() => void keep(false)}>Keep this take</button>
  {#if size > 0}
    <button class="underline" onclick={() => void keep(true)}
      >with its sound, {bytesName(size)}</button
    >
  {/if}
{/if}
