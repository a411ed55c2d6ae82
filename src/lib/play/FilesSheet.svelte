<!-- What plays as files, with progress and a way to call it off. -->
<script lang="ts">
  import { onDestroy } from 'svelte';
  import { gainsOf } from '$lib/audio/mix';
  import { pageTransport } from '$lib/audio/transport.svelte';
  import { getStudy } from '$lib/study/study.svelte';
  import { download } from '$lib/ui/download';
  import { warn } from '$lib/ui/messages.svelte';
  import { getStage } from '$lib/stage/stage.svelte';

  const study = getStudy();
  const stage = getStage();
  const transport = pageTransport();

  let share = $state<number | null>(null);
  let calledOff: AbortController | null = null;
  onDestroy(() => calledOff?.abort());

  const named = (ending: string) =>
    `${study.title.replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'Corvel'}, band.${ending}`;

  const MAKERS = {
    mid: { type: 'audio/midi', make: 'passMidi' },
    musicxml: { type: 'application/vnd.recordare.musicxml+xml', make: 'passScore' },
  } as const;

  async function save(ending: keyof typeof MAKERS) {
    const programme = stage.steady('written');
    const { form, feel, tempo: bpm } = stage;
    if (!programme || !form) return;
    const { type, make } = MAKERS[ending];
    const files = await import('$lib/stage/files');
    const content = files[make]({ title: study.title, programme, form, feel, bpm });
    const parts = typeof content === 'string' ? content : new Uint8Array(content);
    download(new File([parts], named(ending), { type }));
  }

  async function saveWav() {
    const programme = stage.steady('played');
    if (!programme || share !== null) return;
    share = 0;
    calledOff = new AbortController();
    const { signal } = calledOff;
    try {
      const { programmeWav } = await import('$lib/audio/render');
      const { start, length } = programme;
      const bytes = await programmeWav(programme, {
        from: start,
        to: length,
        gains: gainsOf(transport.mix),
        signal,
        onProgress: (done) => (share = done),
      });
      download(new File([new Uint8Array(bytes)], named('wav'), { type: 'audio/wav' }));
    } catch {
      if (!signal.aborted) warn('The file could not be rendered.');
    } finally {
      share = null;
    }
  }
</script>

<p class="mb-2 max-w-64 text-ink-soft">The loop once through, with the line, at this tempo.</p>
<div class="flex flex-wrap gap-2">
  <button class="button" onclick={() => save('mid')}>MIDI, one track per part</button>
  <button class="button" onclick={() => save('musicxml')}>MusicXML, one staff per part</button>
  <button class="button" disabled={share !== null} onclick={saveWav}>WAV</button>
</div>
{#if share !== null}
  <div class="mt-2 flex items-center gap-2" role="status">
    <progress class="flex-1" max="1" value={share}></progress>
    <span class="tabular-nums">{Math.round(100 * share)} %</span>
    <button class="button-quiet" onclick={() => calledOff?.abort()}>Cancel</button>
  </div>
{/if}
