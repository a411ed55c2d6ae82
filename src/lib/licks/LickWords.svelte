<!-- What a lick is described by: its title, chords, tags and source. -->
<script lang="ts">
  import type { LickEditing } from './editing.svelte';
  import { barsOf, tagsIn, withBars } from './words';

  interface Props {
    readonly id: string;
    readonly editing: LickEditing;
  }

  let { id, editing }: Props = $props();

  /** What is typed into a field that is kept otherwise than it is typed, until the field is left. */
  const drafts = $state<{ chords: string | null; tags: string | null }>({
    chords: null,
    tags: null,
  });
</script>

<div {id} class="flex flex-wrap items-center gap-2 text-sm">
  <label class="min-w-40 flex-1 max-sm:basis-full">
    <span class="sr-only">Title</span>
    <input
      class="field heading w-full text-lg"
      name="title"
      maxlength="120"
      value={editing.lick.title}
      oninput={(event) => editing.write('title', event.currentTarget.value)}
    />
  </label>
  <label class="flex min-w-56 flex-1 items-center gap-1.5">
    <span class="text-ink-soft">Chords</span>
    <input
      class="field w-full"
      name="chords"
      value={drafts.chords ?? barsOf(editing.lick.chart)}
      oninput={(event) => {
        const { value } = event.currentTarget;
        drafts.chords = value;
        editing.write('chart', withBars(editing.lick.chart, value));
      }}
      onblur={() => (drafts.chords = null)}
    />
  </label>
  <label class="flex items-center gap-1.5 max-sm:basis-full">
    <span class="text-ink-soft">Tags</span>
    <input
      class="field w-56 max-sm:w-full"
      name="tags"
      value={drafts.tags ?? editing.lick.tags.join(', ')}
      placeholder="blues, slow"
      oninput={(event) => {
        const { value } = event.currentTarget;
        drafts.tags = value;
        editing.write('tags', tagsIn(value));
      }}
      onblur={() => (drafts.tags = null)}
    />
  </label>
  <label class="flex items-center gap-1.5">
    <span class="text-ink-soft">Source</span>
    <input
      class="field w-20"
      name="source"
      maxlength="40"
      value={editing.lick.source}
      oninput={(event) => editing.write('source', event.currentTarget.value)}
    />
  </label>
</div>
