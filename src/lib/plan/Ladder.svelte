<!--
  The crossing: now's notes at left and next's at right by pitch, with lines for what holds and
  what moves. Half steps are heaviest; what arrives new is ringed, guide tones stand proud.
-->
<script lang="ts">
  import type { Chord, Note } from 'corvel-core';
  import { readOver, type Weight, weightOver } from '$core/chords/over';
  import type { Crossing } from '$core/crossings/crossing';
  import { pitchClass, transpose } from '$core/notes/notes';
  import { changeSteps } from '$core/targets/changes';
  import { showNote, showOver, speakSentence } from '$lib/ui/glyphs';
  import { moveWeight } from '$lib/frame/contour';

  interface Props {
    readonly crossing: Crossing & {
      readonly before: readonly Note[];
      readonly after: readonly Note[];
    };
    readonly now: Chord;
    readonly next: Chord;
  }

  let { crossing, now, next }: Props = $props();

  const WIDTH = 340;
  const HEIGHT = 160;
  const LEFT = 104;
  const RIGHT = WIDTH - 104;
  const TOP = 12;

  /** The pitch the ladder begins on: the one where the fewest moves run off an end. */
  const floor = $derived.by(() => {
    const broken = (from: number) =>
      crossing.moves.filter(({ from: note, to, halfSteps: size }) => {
        const height = (one: Note) => (pitchClass(one) - from + 12) % 12;
        return height(to) - height(note) !== size;
      }).length;
    const start = pitchClass(now.root);
    return Array.from({ length: 12 }, (_, offset) => (start + offset) % 12).reduce((best, from) =>
      broken(from) < broken(best) ? from : best,
    );
  });
  const y = (note: Note) =>
    TOP + (HEIGHT - 2 * TOP) * (1 - ((pitchClass(note) - floor + 12) % 12) / 11);

  interface Rung {
    readonly note: Note;
    readonly degree: string;
    readonly weight: Weight;
    readonly fresh: boolean;
  }

  function rungs(chord: Chord, notes: readonly Note[], fresh: readonly Note[]): readonly Rung[] {
    return readOver(chord, notes).map(({ note, degree }) => ({
      note,
      degree: showOver(chord, degree),
      weight: weightOver(chord, degree),
      fresh: fresh.includes(note),
    }));
  }

  const left = $derived(rungs(now, crossing.before, crossing.leaves));
  const right = $derived(rungs(next, crossing.after, crossing.arrives));
  const guideTones = $derived(
    new Set(next.quality.guideTones.map((one) => pitchClass(transpose(next.root, one)))),
  );
  /** The moves and arrivals that name the coming chord. */
  const speaking = $derived([
    ...crossing.moves.filter(
      ({ to, halfSteps: size }) => Math.abs(size) === 1 && guideTones.has(pitchClass(to)),
    ),
  ]);
  const said = $derived(changeSteps(crossing).map(speakSentence).join(' '));
  const RADIUS = { guide: 7, chord: 6, colour: 4.5 } as const;
  const unchanged = $derived(
    crossing.moves.length + crossing.leaves.length + crossing.arrives.length === 0,
  );
</script>

<figure class="min-w-0" data-ladder>
  <svg
    viewBox="0 0 {WIDTH} {HEIGHT}"
    class="block w-full max-w-md lg:max-w-[17rem] xl:max-w-md"
    role="img"
    aria-label={said}
  >
    {#each crossing.held as note, place (place)}
      <line
        class="stroke-line-strong"
        stroke-width="1.5"
        x1={LEFT}
        x2={RIGHT}
        y1={y(note)}
        y2={y(note)}
      />
    {/each}
    {#each crossing.moves as move, place (place)}
      {@const speaks = speaking.includes(move)}
      <line
        class={Math.abs(move.halfSteps) === 1 ? 'stroke-ink' : 'stroke-line-strong'}
        stroke-width={moveWeight(move.halfSteps)}
        x1={LEFT}
        x2={RIGHT - (speaks ? 14 : 8)}
        y1={y(move.from)}
        y2={y(move.to)}
      />
    {/each}
    {#each left as { note, degree, weight, fresh }, place (place)}
      {@const gone = fresh}
      <text class="fill-ink-soft text-[11px]" x={LEFT - 52} y={y(note) + 4} text-anchor="end"
        >{degree}</text
      >
      <text
        class="text-[13px] {gone ? 'fill-ink-soft' : 'fill-ink'} {weight === 'guide'
          ? 'font-bold'
          : ''}"
        x={LEFT - 18}
        y={y(note) + 4}
        text-anchor="end">{showNote(note)}</text
      >
      <circle
        class={weight === 'colour' ? 'fill-now-tint stroke-now' : 'fill-now stroke-now'}
        stroke-dasharray={gone ? '2 2' : undefined}
        cx={LEFT}
        cy={y(note)}
        r={RADIUS[weight]}
      />
    {/each}
    {#each right as { note, degree, weight, fresh }, place (place)}
      <circle
        class="fill-paper stroke-next"
        stroke-width={weight === 'colour' ? 1.4 : 2.6}
        cx={RIGHT}
        cy={y(note)}
        r={RADIUS[weight]}
      />
      {#if fresh && weight !== 'colour'}
        <circle class="fill-none stroke-next" cx={RIGHT} cy={y(note)} r={RADIUS[weight] + 3.5} />
      {/if}
      <text
        class="fill-ink text-[13px] {weight === 'guide' ? 'font-bold' : ''}"
        x={RIGHT + 18}
        y={y(note) + 4}>{showNote(note)}</text
      >
      <text class="fill-ink-soft text-[11px]" x={RIGHT + 48} y={y(note) + 4}
        >{degree}{fresh ? ' new' : ''}</text
      >
    {/each}
  </svg>
  {#if unchanged}
    <figcaption class="text-sm">Every note stays: both chords use the same notes.</figcaption>
  {/if}
</figure>
