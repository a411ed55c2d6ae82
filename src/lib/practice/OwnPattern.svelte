<!-- A player's own pattern: typed, read as it is typed, or taken from those that are there. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { parsePattern } from '$core/exercises/own/pattern';
  import { FIRST_PATTERN, STARTER_PATTERNS } from '$core/exercises/own/starter';
  import { readPatternLine, type SharedPattern } from '$core/exercises/own/line';
  import { EXERCISE_WORDS } from '$core/exercises/words';
  import { type Direction, PATTERN_LIMITS } from '$core/exercises/kinds';
  import PatternShelf from './PatternShelf.svelte';
  import Picked from '$lib/ui/Picked.svelte';
  import Popover from '$lib/ui/Popover.svelte';
  import type { Practice } from './practice.svelte';

  interface Props {
    readonly practice: Practice;
  }

  let { practice }: Props = $props();

  const SIGNS: readonly (readonly [sign: string, says: string])[] = [
    ['7', 'the chord’s own seventh'],
    ['b3 #4 n7', 'flat, sharp, or as in the major scale'],
    ['~3 ^3', 'a leap down, a leap up'],
    ['<1 >1', 'from a half step below, from a step above'],
    ['(2 7)1', 'from both sides'],
    ['r 5_', 'a rest, a note held twice as long'],
    ['1:q', 'a quarter; w h q e s, with . dotted and t triplet'],
    ['… 1 2', 'goes on where the last one ended'],
    ['on m7: 1 2', 'only over these chords'],
  ];

  const OURS = [
    ['', 'one of these'],
    ...STARTER_PATTERNS.map(({ name, text }) => [text, name] as const),
  ] as const;
  const DIRECTION_NAMES: readonly (readonly [Direction, string])[] = [
    ['forward', 'as typed'],
    ['backward', 'backward'],
    ['by turns', 'both, chord by chord'],
  ];

  let name = $state('');
  let tags = $state('');

  let showsSigns = $state(false);

  /** What stands in the field: what is played is the last of it that can be read. */
  let text = $state(untrack(() => practice.settings.pattern ?? FIRST_PATTERN));
  let played = untrack(() => practice.settings.pattern);
  $effect(() => {
    const { pattern } = practice.settings;
    // A kept sheet brings its own.
    if (pattern !== played) text = pattern ?? FIRST_PATTERN;
    played = pattern;
  });
  function takeShared(pattern: SharedPattern) {
    name = pattern.name;
    tags = pattern.tags.join(', ');
    take(pattern.text);
  }
  function take(typed: string) {
    text = typed;
    const line = readPatternLine(typed);
    // A line that somebody sent brings its name and tags.
    if (line.name !== '') {
      name = line.name;
      tags = line.tags.join(', ');
    }
    if (!parsePattern(line.text).ok) return;
    played = line.text;
    practice.change({ pattern: line.text });
  }

  /** The pattern alone, without the name and tags of a line. */
  const pattern = $derived(readPatternLine(text).text);
  const read = $derived(parsePattern(pattern));
  const problem = $derived(read.ok || text.trim() === '' ? null : read.problems[0]);
  const known = $derived(STARTER_PATTERNS.find((one) => one.text === pattern)?.text ?? '');
</script>

<div class="flex shrink-0 flex-wrap items-center gap-x-3 gap-y-1 text-sm print:hidden">
  <label class="flex min-w-64 flex-1 items-center gap-1.5">
    <span class="text-ink-soft">Pattern</span>
    <input
      class="field min-w-0 flex-1"
      name="pattern"
      autocomplete="off"
      spellcheck="false"
      maxlength={PATTERN_LIMITS.characters + 200}
      placeholder="1 2 3 5"
      value={text}
      aria-invalid={problem !== null}
      aria-describedby="pattern-says"
      oninput={(event) => take(event.currentTarget.value)}
      onchange={() => (text = pattern)}
    />
  </label>
  <Popover
    bind:open={showsSigns}
    label="Signs of a pattern"
    button="button-quiet"
    sheet="w-80"
    side="bottom"
  >
    {#snippet trigger()}Signs{/snippet}
    <dl class="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
      {#each SIGNS as [sign, says] (sign)}
        <dt><code>{sign}</code></dt>
        <dd>{says}</dd>
      {/each}
    </dl>
  </Popover>
  <PatternShelf text={pattern} ontake={takeShared} bind:name bind:tags />
  <Picked
    label="Played"
    name="direction"
    value={practice.settings.direction ?? 'forward'}
    options={DIRECTION_NAMES}
    onpick={(direction) =>
      practice.change({ direction: direction === 'forward' ? null : direction })}
    inline
    lettersToPage
  />
  {#if practice.madeFrom}
    {@const kind = practice.madeFrom}
    <button class="button-quiet" data-back-to-exercise onclick={() => practice.change({ kind })}
      >Back to “{EXERCISE_WORDS[kind].name}”</button
    >
  {/if}
  <Picked
    label="or take"
    name="starter-pattern"
    value={known}
    options={OURS}
    onpick={(text) => {
      if (text !== '') take(text);
    }}
    inline
    lettersToPage
  />
  <p id="pattern-says" class="min-h-5 w-full {problem ? 'text-now-text' : 'text-ink-soft'}">
    {#if problem}
      <span data-pattern-problem
        >{problem.message}
        {#if problem.from > 0 || problem.to < pattern.length}
          <span class="sr-only">At sign {problem.from + 1}.</span>
          <code class="px-1" aria-hidden="true"
            >{pattern.slice(0, problem.from)}<mark class="bg-transparent underline decoration-2"
              >{pattern.slice(problem.from, problem.to)}</mark
            >{pattern.slice(problem.to)}</code
          >
        {/if}</span
      >
    {:else if text.trim() === ''}
      Type the degrees as you say them: 1 2 3 5.
    {/if}
  </p>
</div>
