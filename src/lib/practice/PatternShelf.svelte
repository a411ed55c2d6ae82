<!-- The shelf of the player's own patterns: keeping the one typed, finding, taking, sharing and deleting them. -->
<script lang="ts">
  import {
    readTags,
    SHARED_LIMITS,
    type SharedPattern,
    writePatternLine,
  } from '$core/exercises/own/line';
  import { getStudy } from '$lib/study/study.svelte';
  import { inform, message, warn } from '$lib/ui/messages.svelte';
  import Popover from '$lib/ui/Popover.svelte';
  import { onShelf, withoutPattern, withPattern } from './shelf';

  interface Props {
    /** What stands in the field. */
    readonly text: string;
    readonly ontake: (pattern: SharedPattern) => void;
    name: string;
    tags: string;
  }

  let { text, ontake, name = $bindable(), tags = $bindable() }: Props = $props();

  const { settings } = getStudy();
  let open = $state(false);
  let sought = $state('');

  const mine = $derived(onShelf(settings.current.patterns));
  const shown = $derived(
    mine.filter((one) => writePatternLine(one).toLowerCase().includes(sought.trim().toLowerCase())),
  );

  function keep(event: SubmitEvent) {
    event.preventDefault();
    const kept = withPattern(settings.current.patterns, { name, text, tags: readTags(tags) });
    if (typeof kept === 'string') {
      warn(kept);
      return;
    }
    settings.change({ patterns: kept });
    inform(`“${name.trim()}” is kept.`);
  }

  function drop(pattern: SharedPattern) {
    settings.change({ patterns: withoutPattern(settings.current.patterns, pattern.name) });
    message(`“${pattern.name}” is deleted.`, {
      duration: 10_000,
      action: {
        label: 'Take it back',
        onClick: () => {
          const again = withPattern(settings.current.patterns, pattern);
          if (typeof again !== 'string') settings.change({ patterns: again });
        },
      },
    });
  }

  async function copy() {
    const line = writePatternLine({ name: name.trim(), text: text.trim(), tags: readTags(tags) });
    try {
      await navigator.clipboard.writeText(line);
      inform('Copied: paste it anywhere, or into a pattern field.');
    } catch {
      warn(`The browser did not let Corvel copy. The line is: ${line}`);
    }
  }
</script>

<Popover bind:open label="My patterns" button="button-quiet" sheet="w-96" side="bottom">
  {#snippet trigger()}My patterns{mine.length > 0 ? ` (${mine.length})` : ''}{/snippet}
  <div class="grid gap-3">
    <form class="grid grid-cols-[auto_1fr] items-center gap-x-2 gap-y-1.5" onsubmit={keep}>
      <label for="pattern-name" class="text-ink-soft">Name</label>
      <input
        id="pattern-name"
        class="field min-w-0"
        name="pattern-name"
        autocomplete="off"
        maxlength={SHARED_LIMITS.name}
        bind:value={name}
      />
      <label for="pattern-tags" class="text-ink-soft">Tags</label>
      <input
        id="pattern-tags"
        class="field min-w-0"
        name="pattern-tags"
        autocomplete="off"
        placeholder="endings, slow"
        bind:value={tags}
      />
      <div class="col-span-2 flex gap-2">
        <button class="button-strong">Keep</button>
        <button class="button" type="button" onclick={copy}>Copy as a line</button>
      </div>
    </form>
    {#if mine.length === 0}
      <p class="text-ink-soft">No pattern is kept yet. Type one, give it a name, and keep it.</p>
    {:else}
      <input
        class="field"
        type="search"
        aria-label="Find a pattern by name or tag"
        placeholder="Find by name or tag"
        bind:value={sought}
      />
      <ul class="max-h-64 overflow-y-auto" aria-label="Patterns that are kept">
        {#each shown as pattern (pattern.name)}
          <li class="flex items-center gap-1">
            <button
              class="min-w-0 flex-1 rounded px-1 py-1.5 text-left hover:bg-line"
              data-pattern={pattern.name}
              onclick={() => {
                ontake(pattern);
                open = false;
              }}
            >
              <span class="block font-semibold">{pattern.name}</span>
              <span class="block truncate"
                ><code>{pattern.text}</code>
                <span class="text-ink-soft">{pattern.tags.join(', ')}</span></span
              >
            </button>
            <button
              class="min-w-9 px-1.5 py-1.5 text-ink-soft hover:text-ink"
              aria-label="Delete {pattern.name}"
              onclick={() => drop(pattern)}>×</button
            >
          </li>
        {:else}
          <li class="text-ink-soft">None has this name or tag.</li>
        {/each}
      </ul>
    {/if}
  </div>
</Popover>
