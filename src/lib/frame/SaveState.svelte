<!-- Whether everything is kept, in words. -->
<script lang="ts">
  import type { SaveState } from '$lib/study/document.svelte';
  import { getStudy } from '$lib/study/study.svelte';

  interface Props {
    /** Whether a narrow head has no room for it while all is well. */
    readonly brief: boolean;
  }

  let { brief }: Props = $props();

  const study = getStudy();
  const { document } = study;

  const WORDS: Readonly<Record<SaveState, string>> = {
    saved: 'Saved',
    saving: 'Saving…',
    offline: 'Server away: kept here, sent when it is back',
    waiting: 'No answer yet: kept here, trying again',
    locked: 'Locked: kept here, sent once the passcode is given',
    conflict: 'Changed elsewhere too',
    refused: 'Not saved',
  };
  const calm = $derived(document.saveState === 'saved' || document.saveState === 'saving');
  /** What the server itself says of it, where it answered. */
  const words = $derived.by(() => {
    const { saveState, refusal } = document;
    if (refusal === '') return WORDS[saveState];
    if (saveState === 'offline') return refusal;
    return saveState === 'refused' ? `${WORDS.refused}: ${refusal}` : WORDS[saveState];
  });
</script>

<p
  role="status"
  data-save-state={document.saveState}
  class="text-sm print:hidden {calm ? 'text-ink-soft' : 'font-semibold text-now-text'} {calm &&
  brief
    ? 'max-sm:sr-only'
    : ''}"
>
  {words}
  {#if document.saveState === 'locked'}
    <a class="underline" href="/unlock" target="_blank" rel="noopener">Unlock</a>
  {/if}
  {#if study.newerPlan}
    <span data-newer-plan>· this plan was made by a newer Corvel and is left unchanged</span>
  {:else if !document.keepsDrafts}
    <span data-no-drafts>· this browser keeps no copy: its storage is full or blocked</span>
  {/if}
</p>
