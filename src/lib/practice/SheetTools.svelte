<!-- What the head of a practice sheet offers: play, speed, print, files out and in. -->
<script lang="ts">
  import FileMusic from '@lucide/svelte/icons/file-music';
  import Play from '@lucide/svelte/icons/play';
  import Printer from '@lucide/svelte/icons/printer';
  import Stop from '@lucide/svelte/icons/square';
  import { inform, warn } from '$lib/ui/messages.svelte';
  import type { Passage } from '$core/phrases/passage';
  import {
    PASSAGE_FORMATS,
    PASSAGE_TYPES,
    type PassageFormat,
    passageFile,
    passageFormatName,
  } from '$lib/formats/passages';
  import { readPassageFile } from '$lib/formats/opening';
  import { getStudy } from '$lib/study/study.svelte';
  import { download } from '$lib/ui/download';

  interface Props {
    readonly passage: Passage | null;
    readonly playing: boolean;
    speed: number;
    readonly onplay: () => void;
    readonly onopen: (passage: Passage) => void;
    /** Plays the sheet over the band. */
    readonly onband: () => void;
  }

  let { passage, playing, speed = $bindable(), onplay, onopen, onband }: Props = $props();

  const study = getStudy();
  const SPEEDS = [0.5, 0.75, 1, 1.25] as const;
  let saving = $state(false);

  async function save(format: PassageFormat) {
    if (!passage || saving) return;
    saving = true;
    try {
      const { file, remarks } = await passageFile(passage, format);
      download(file);
      for (const remark of remarks) inform(remark);
    } catch {
      warn('The file could not be written.');
    } finally {
      saving = false;
    }
  }

  async function open(file: File | undefined) {
    if (!file) return;
    const result = await readPassageFile(new Uint8Array(await file.arrayBuffer()), study.neck);
    if (!result.ok) {
      warn(result.message);
      return;
    }
    onopen({ ...result.passage, title: result.passage.title || file.name });
    for (const remark of result.remarks) inform(remark);
  }
</script>

<button class="button-strong" onclick={onplay} title="Play or stop (Space)">
  {#if playing}<Stop size={15} aria-hidden="true" />Stop{:else}<Play
      size={15}
      aria-hidden="true"
    />Play{/if}
</button>
<button class="button" onclick={onband} title="This sheet over the band (Shift P)">With band</button
>
<label class="flex items-center gap-1 text-sm">
  <span class="sr-only">Speed</span>
  <select class="field" bind:value={speed}>
    {#each SPEEDS as one (one)}<option value={one}>{one * 100} %</option>{/each}
  </select>
</label>
<button class="button-quiet text-sm" title="Print the sheet" onclick={() => window.print()}>
  <Printer size={16} aria-hidden="true" /><span class="max-2xl:sr-only">Print</span>
</button>
<label class="text-sm">
  <span class="sr-only">Export</span>
  <select
    class="field w-28"
    name="export"
    value=""
    disabled={saving}
    onchange={(event) => {
      const picked = PASSAGE_FORMATS.find((one) => one === event.currentTarget.value);
      event.currentTarget.value = '';
      if (picked) void save(picked);
    }}
  >
    <option value="">{saving ? 'Writing…' : 'Export…'}</option>
    {#each PASSAGE_FORMATS as format (format)}<option value={format}
        >{passageFormatName(format)}</option
      >{/each}
  </select>
</label>
<label
  class="button-quiet cursor-pointer text-sm focus-within:outline-2"
  title="Open a melody: MIDI or MusicXML"
>
  <FileMusic size={16} aria-hidden="true" /><span class="max-2xl:sr-only">Open a melody</span>
  <input
    type="file"
    class="sr-only"
    id="melody-file"
    accept={PASSAGE_TYPES}
    onchange={(event) => {
      void open(event.currentTarget.files?.[0]);
      event.currentTarget.value = '';
    }}
  />
</label>
