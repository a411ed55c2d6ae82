<!-- The chord's thirds in a row, and over them a bracket for each arpeggio stacked on one of them. -->
<script lang="ts">
  import { type Chord, chordName, type Note, type Option } from 'corvel-core';
  import { pitchClass } from '$core/notes/notes';
  import { showNote, showSymbol } from '$lib/ui/glyphs';
  import { tensionsOver } from '$core/lenses/options';

  interface Props {
    readonly chord: Chord;
    /** The stacked arpeggios, in any order. */
    readonly options: readonly Option[];
    readonly chosen: string;
    readonly onlook: (option: Option | null) => void;
    readonly onchoose: (option: Option) => void;
  }

  let { chord, options, chosen, onlook, onchoose }: Props = $props();

  const GAP = 52;
  const LEFT = 26;
  const TOP = 22;
  const ROW = 24;
  const THIRDS = [1, 3, 5, 7, 9, 11, 13] as const;

  const number = (tension: string) => Number(/\d+$/u.exec(tension)?.[0] ?? 0);
  /** Where a stacked chord begins and ends on the row of thirds. */
  const spans = $derived(
    options
      .map((option) => {
        const numbers = tensionsOver(chord, option).map((tension) => {
          const found = number(tension);
          return found % 2 === 0 ? found + 7 : found;
        });
        return { option, from: Math.min(...numbers), to: Math.max(...numbers) };
      })
      .sort((a, b) => a.from - b.from),
  );
  /** What stands at each third: the chord's own tones, then what the stacks bring. */
  const row = $derived(
    THIRDS.map((third) => {
      const names: { note: Note; text: string }[] = [];
      for (const { option } of spans) {
        const tensions = tensionsOver(chord, option);
        for (const [index, note] of option.material.notes.entries()) {
          const text = tensions[index] ?? '';
          const at = number(text) % 2 === 0 ? number(text) + 7 : number(text);
          const known = names.some((one) => pitchClass(one.note) === pitchClass(note));
          if (at === third && !known) names.push({ note, text });
        }
      }
      if (third === 1 && names.length === 0) names.push({ note: chord.root, text: '1' });
      return { third, names };
    }),
  );
  const x = (third: number) => LEFT + ((third - 1) / 2) * GAP;
  const height = $derived(TOP + 34 + spans.length * ROW);
</script>

<svg
  viewBox="0 0 {LEFT * 2 + 6 * GAP} {height}"
  class="block w-full max-w-md"
  role="group"
  aria-label="Arpeggios stacked on {showSymbol(chordName({ ...chord, bass: null }))}"
  data-stack
>
  <line class="stroke-line" x1={x(1)} x2={x(13)} y1={TOP} y2={TOP} />
  {#each row as { third, names } (third)}
    <circle
      class={third <= 7 ? 'fill-ink stroke-ink' : 'fill-sheet stroke-ink'}
      cx={x(third)}
      cy={TOP}
      r="5"
    />
    <text class="fill-ink text-[12px] font-semibold" x={x(third)} y={TOP - 10} text-anchor="middle">
      {names.map(({ text }) => showSymbol(text)).join(' ') || third}
    </text>
    <text class="fill-ink-soft text-[11px]" x={x(third)} y={TOP + 19} text-anchor="middle">
      {names.map(({ note }) => showNote(note)).join(' ')}
    </text>
  {/each}
  {#each spans as { option, from, to }, index (option.material.name)}
    {@const y = TOP + 32 + index * ROW}
    {@const here = option.material.name === chosen}
    <g
      role="button"
      tabindex="0"
      aria-pressed={here}
      aria-label="{showSymbol(option.material.name)}: {tensionsOver(chord, option)
        .map(showSymbol)
        .join(' ')}"
      class="cursor-pointer outline-none {here
        ? 'text-now-text'
        : 'text-ink'} focus-visible:[&>rect]:stroke-ink"
      onpointerenter={() => onlook(option)}
      onpointerleave={() => onlook(null)}
      onfocus={() => onlook(option)}
      onblur={() => onlook(null)}
      onclick={() => onchoose(option)}
      onkeydown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onchoose(option);
      }}
    >
      <rect
        class="fill-transparent stroke-transparent"
        x={x(from) - 8}
        y={y - 4}
        width={x(to) - x(from) + 16}
        height={ROW - 2}
      />
      <path
        class="fill-none stroke-current"
        stroke-width={here ? 3 : 1.5}
        d="M{x(from)} {y - 2} V{y + 4} H{x(to)} V{y - 2}"
      />
      <text
        class="fill-current text-[12px]"
        x={(x(from) + x(to)) / 2}
        y={y + 16}
        text-anchor="middle"
      >
        {showSymbol(option.material.name.replace(/ arpeggio$/u, ''))}
      </text>
    </g>
  {/each}
</svg>
