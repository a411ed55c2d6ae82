<!-- A chart begun from a form, in any key. -->
<script lang="ts">
  import { fromTemplate, type Template, TEMPLATES } from '$core/chart/templates';
  import { type Note, noteName } from 'corvel-core';
  import { range } from '$core/lists';
  import Dialog from '$lib/ui/Dialog.svelte';
  import { showNote } from '$lib/ui/glyphs';

  interface Props {
    open: boolean;
    readonly onchart: (text: string) => Promise<boolean>;
  }

  let { open = $bindable(), onchart }: Props = $props();

  const TONICS = range(-6, 6).map((fifths) => fifths as Note);
  let tonic = $state<Note>(-3 as Note);

  async function choose(template: Template) {
    if (await onchart(fromTemplate(template, tonic))) open = false;
  }
</script>

<Dialog bind:open title="Start from a template" wide>
  <label class="mb-3 flex items-center gap-2">
    In
    <select
      class="field"
      value={noteName(tonic)}
      onchange={(event) => {
        tonic = TONICS.find((note) => noteName(note) === event.currentTarget.value) ?? tonic;
      }}
    >
      {#each TONICS as note (note)}<option value={noteName(note)}>{showNote(note)}</option>{/each}
    </select>
  </label>
  <div class="gap-x-8 md:columns-2">
    {#each Object.entries(TEMPLATES) as [name, templates] (name)}
      <section class="mb-3 break-inside-avoid">
        <h3 class="mb-1 text-sm font-semibold">{name}</h3>
        <div class="flex flex-wrap gap-1.5">
          {#each templates as template (template.name)}
            <button class="button text-sm" onclick={() => choose(template)}>{template.name}</button>
          {/each}
        </div>
      </section>
    {/each}
  </div>
</Dialog>
