<!-- A player's own pattern: typed, read as it is typed, or taken from those that are there. -->
<script lang="ts">
  import { parsePattern, PATTERN_LIMITS } from '$core/exercises/own/pattern';
  import { STARTER_PATTERNS } from '$core/exercises/own/starter';
  import type { Practice } from './practice.svelte';

  interface Props {
    readonly practice: Practice;
  }

  let { practice }: Props = $props();

  const text = $derived(practice.settings.pattern ?? '');
  const read = $derived(parsePattern(text));
  const problem = $derived(read.ok || text.trim() === '' ? null : read.problems[0]);
  const known = $derived(STARTER_PATTERNS.find((one) => one.text === text)?.text ?? '');
</script>

<div class="flex shrink-0 flex-wrap items-center gap-x-3 gap-y-1 text-sm print:hidden">
  <label class="flex min-w-64 flex-1 items-center gap-1.5">
    <span class="text-ink-soft">Pattern</span>
    <input
      class="field min-w-0 flex-1"
      name="pattern"
      autocomplete="off"
      spellcheck="false"
      maxlength={PATTERN_LIMITS.characters}
      placeholder="1 2 3 5"
      value={text}
      aria-invalid={problem !== null}
      aria-describedby="pattern-says"
      oninput={(event) => practice.change({ pattern: event.currentTarget.value })}
    />
  </label>
  <label class="flex items-center gap-1.5">
    <span class="text-ink-soft">or take</span>
    <select
      class="field"
      name="starter-pattern"
      data-keys="page"
      value={known}
      onchange={(event) => {
        const { value } = event.currentTarget;
        if (value !== '') practice.change({ pattern: value });
      }}
    >
      <option value="">one of these</option>
      {#each STARTER_PATTERNS as { name, text } (text)}<option value={text}>{name}</option>{/each}
    </select>
  </label>
  <p id="pattern-says" class="min-h-5 w-full {problem ? 'text-now-text' : 'text-ink-soft'}">
    {#if problem}
      <span data-pattern-problem
        >{problem.message}
        {#if problem.from > 0 || problem.to < text.length}
          <span class="sr-only">At sign {problem.from + 1}.</span>
          <code class="px-1" aria-hidden="true"
            >{text.slice(0, problem.from)}<mark class="bg-transparent underline decoration-2"
              >{text.slice(problem.from, problem.to)}</mark
            >{text.slice(problem.to)}</code
          >
        {/if}</span
      >
    {:else}
      b3 and #4 are exact; n7 is the major seventh. ~3 leaps down, ^3 up. &lt;1 from a half step
      below, &gt;1 from a step above, (2 7)1 from both sides. r rests, _ holds, :q a quarter. … goes
      on where the last ended. on m7: only over those chords.
    {/if}
  </p>
</div>
