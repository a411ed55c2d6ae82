<!-- A passage out to a file of any format, and one opened from a file. -->
<script lang="ts">
  import FileMusic from '@lucide/svelte/icons/file-music';
  import type { Neck, Passage } from 'corvel-core';
  import { download } from '$lib/ui/download';
  import { inform, warn } from '$lib/ui/messages.svelte';
  import { readPassageFile } from '$lib/workers/opening';
  import {
    PASSAGE_FORMATS,
    PASSAGE_TYPES,
    type PassageFormat,
    passageFile,
    passageFormatName,
  } from '$lib/formats/passages';
  import { chosenFile } from '$lib/ui/chosenFile';

  interface Props {
    readonly passage: Passage | null;
    readonly neck: Neck;
    /** What is opened, in words, and the id of its field. */
    readonly what: string;
    readonly id: string;
    readonly onopen: (passage: Passage) => void;
  }

  let { passage, neck, what, id, onopen }: Props = $props();

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

  async function print() {
    const { savePdf } = await import('$lib/paper/save');
    await savePdf(passage?.title ?? '');
  }

  async function open(file: File | undefined) {
    if (!file) return;
    const result = await readPassageFile(new Uint8Array(await file.arrayBuffer()), neck);
    if (!result.ok) {
      warn(result.message);
      return;
    }
    onopen({ ...result.passage, title: result.passage.title || file.name });
    for (const remark of result.remarks) inform(remark);
  }
</script>

<label class="text-sm">
  <span class="sr-only">Export</span>
  <select
    class="field w-28 lg:max-2xl:w-20 lg:max-2xl:px-1"
    name="export"
    value=""
    disabled={saving}
    onchange={(event) => {
      const { value } = event.currentTarget;
      const picked = PASSAGE_FORMATS.find((one) => one === value);
      event.currentTarget.value = '';
      if (value === 'pdf') void print();
      if (picked) void save(picked);
    }}
  >
    <option value="">{saving ? 'Writing…' : 'Export…'}</option>
    {#each PASSAGE_FORMATS as format (format)}<option value={format}
        >{passageFormatName(format)}</option
      >{/each}
    <option value="pdf">This page, PDF</option>
  </select>
</label>
<label
  class="button-quiet cursor-pointer text-sm focus-within:outline-2"
  title="Open {what}: MIDI, MusicXML or tablature"
>
  <FileMusic size={16} aria-hidden="true" /><span class="max-2xl:sr-only">Open {what}</span>
  <input
    type="file"
    class="sr-only"
    {id}
    accept={PASSAGE_TYPES}
    onchange={(event) => void open(chosenFile(event.currentTarget))}
  />
</label>
