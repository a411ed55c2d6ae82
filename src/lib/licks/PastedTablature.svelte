<!-- Tablature that is pasted as text. -->
<script lang="ts">
  import type { Neck, Passage } from 'corvel-core';
  import { inform, warn } from '$lib/ui/messages.svelte';
  import { readPassageFile } from '$lib/workers/opening';

  interface Props {
    readonly neck: Neck;
    /** What has been pasted; kept while the form is closed. */
    text: string;
    readonly onread: (passage: Passage) => void;
  }

  let { neck, text = $bindable(), onread }: Props = $props();

  const PLACEHOLDER = 'e|-----5-7-|\nB|-5-8-----|\n…';

  async function read() {
    const result = await readPassageFile(new TextEncoder().encode(text), neck);
    if (!result.ok) {
      warn(result.message);
      return;
    }
    for (const remark of result.remarks) inform(remark);
    text = '';
    onread(result.passage);
  }
</script>

<form
  class="grid gap-2"
  onsubmit={(event) => {
    event.preventDefault();
    void read();
  }}
>
  <textarea
    class="field h-32 font-mono text-xs"
    name="pasted"
    aria-label="Tablature as text"
    placeholder={PLACEHOLDER}
    bind:value={text}></textarea>
  <button class="button justify-self-start">Read it</button>
</form>
