<!--
  Plan's neck: the marks of now and next with their arrows, the zone's bracket, the targets' pennants. On a narrow
  screen it is as high as `--usual` says, and on a phone no less than `--least`; both are the screen's.
-->
<script lang="ts">
  import type { Mark } from '$core/neck/marks';
  import { fitZone, samePlace, stringCount } from '$core/neck/neck';
  import { spanOf } from '$core/neck/fingering';
  import { type DrawnMark, drawnChange } from '$lib/neck/drawn';
  import JoinedPlaces from '$lib/neck/JoinedPlaces.svelte';
  import { labelMark } from '$lib/neck/labels';
  import { FITTED, fretsBeside, layOut, measuresIn, ZONE_ONLY } from '$lib/neck/layout';
  import MoveArrows from '$lib/neck/MoveArrows.svelte';
  import Neck from '$lib/neck/Neck.svelte';
  import { createWires } from '$lib/neck/wires.svelte';
  import { speakMark } from '$lib/neck/speech';
  import type { Flag } from '$lib/neck/TargetFlags.svelte';
  import ZoneBracket from '$lib/neck/ZoneBracket.svelte';
  import { zoneInSight } from '$lib/neck/zoneInSight';
  import { getStudy } from '$lib/study/study.svelte';
  import { late } from '$lib/ui/afterPaint.svelte';
  import { showOver, speakChord } from '$lib/ui/glyphs';
  import { getPlanModel } from './model.svelte';

  interface Props {
    /** The mark under the pointer or the focus; null when there is none. */
    readonly onread: (mark: Mark | null) => void;
    /** A mark that is picked, by click or by Enter. */
    readonly onpick: (mark: Mark) => void;
  }

  let { onread, onpick }: Props = $props();

  const study = getStudy();
  const model = getPlanModel();

  const OCTAVE = 12;

  const leftHanded = $derived(study.instrument.leftHanded);
  const zone = $derived(study.zone);
  let width = $state(1240);
  let height = $state(360);
  // The neck makes room for the zone smoothly as it moves.
  const wires = createWires(() => ({ neck: study.neck, focus: model.whole ? null : zone }));
  /** On a narrow screen the zone is all there is room for. */
  const zoneOnly = $derived(width < ZONE_ONLY && !model.whole);
  /** The frets with notes: no two of these may touch. */
  const played = $derived.by(() => {
    const { low, high } = model.marks.length > 0 ? spanOf(model.marks) : zone;
    return { low: Math.min(low, zone.low), high: Math.max(high, zone.high) };
  });
  /** On one screen the neck takes what is left of it; on a narrow one an open drawer scrolls with the page. */
  const bounded = $derived(width >= FITTED || study.view.leaf === null);
  const layout = $derived(
    layOut(study.neck, {
      ...measuresIn({ width, height: bounded ? height : null }, stringCount(study.neck), !zoneOnly),
      ...(zoneOnly ? { frets: fretsBeside(study.neck, played, 1) } : {}),
      leftHanded,
      played,
      wires: wires.current,
      flagged: !model.whole,
    }),
  );
  const labelContext = $derived(
    study.now && {
      now: study.now.chord,
      next: study.next?.chord ?? null,
      key: study.reading?.chords[study.now.index]?.key ?? null,
      collection: study.now.material.collection,
      zone,
    },
  );
  const wanted = $derived({
    marks: model.marks,
    context: labelContext,
    labels: study.view.labels,
    zone,
    neck: study.neck,
  });
  const followed = late(() => wanted);
  /** The notes as buttons: all of them are pressed and heard after those under the hand are seen. */
  const pressed = $derived(followed.current.marks.map((mark) => drawnChange(mark, '')));
  const around = $derived(followed.current.context);
  const inHand = (fret: number) => zone.low - 1 <= fret && fret <= zone.high + 1;
  /** What follows a step later than what is under the hand does not follow a move of the zone later. */
  const following = (one: typeof wanted) =>
    one.zone === zone && one.neck === study.neck ? one : wanted;
  const drawn = ({ marks, context, labels }: typeof wanted, belongs: (fret: number) => boolean) =>
    marks
      .filter(({ fret }) => belongs(fret))
      .map((mark) => drawnChange(mark, context ? labelMark(mark, labels, context) : ''));
  const near = $derived(drawn(wanted, inHand));
  // Beyond the zone a step is drawn a frame later, and beyond the octave another: a whole neck is too much for one.
  const far = $derived(
    drawn(following(followed.current), (fret) => !inHand(fret) && fret <= OCTAVE),
  );
  const farthest = late(() => followed.current);
  const high = $derived(
    drawn(following(farthest.current), (fret) => !inHand(fret) && fret > OCTAVE),
  );
  const marks = $derived([...near, ...far, ...high]);
  const markOf = (drawn: DrawnMark | null): Mark | null =>
    drawn?.kind === 'change' ? drawn.mark : null;

  const flags = $derived.by((): readonly Flag[] => {
    if (!study.view.targets && study.view.only !== 'targets') return [];
    const flag = (time: Flag['time'], index: number | undefined): readonly Flag[] => {
      const stop = model.targets.stopAt(index);
      const chord = index === undefined ? undefined : study.planned[index]?.chord;
      if (!stop || index === undefined || !chord) return [];
      const { string, fret } = stop;
      return [
        {
          time,
          string,
          fret,
          label: showOver(chord, stop.degree),
          pinned: model.targets.isPinned(index, stop),
          sounds: model.marks.some((mark) => mark.now !== null && samePlace(mark, stop)),
          crowded: model.marks.some(
            ({ string: own, fret: at, motion }) =>
              own === string &&
              motion?.kind === 'moves' &&
              ((at === fret - 1 && motion.halfSteps === 1) ||
                (at === fret && motion.halfSteps === -1)),
          ),
        },
      ];
    };
    return [...flag('next', study.next?.index), ...flag('now', study.now?.index)];
  });

  /** While the zone is dragged the neck must not slide away under the finger. */
  let dragging = $state(false);

  const label = $derived(
    `Neck, frets ${zone.low} to ${zone.high}${
      study.now ? `, ${speakChord(study.now.chord)}` : ''
    }. Arrow keys walk from note to note.`,
  );
</script>

<div
  {@attach zoneInSight(() => (dragging ? null : { layout, zone, width }))}
  bind:clientWidth={width}
  bind:clientHeight={height}
  class="overflow-x-auto overflow-y-hidden will-change-transform contain-content {study.view
    .leaf === null
    ? 'min-h-0 flex-1 lg:min-h-51'
    : 'shrink-0 max-lg:h-(--usual) lg:h-61 [@media(max-height:799px)]:lg:h-53'}"
>
  <Neck
    class={zoneOnly ? '' : 'min-w-[720px]'}
    neck={study.neck}
    {layout}
    {marks}
    {pressed}
    {label}
    {zone}
    shaded
    {leftHanded}
    speak={(drawn) => {
      const mark = markOf(drawn);
      return mark && around ? speakMark(mark, around) : '';
    }}
    onread={(drawn) => onread(markOf(drawn))}
    onpick={(drawn) => {
      const mark = markOf(drawn);
      if (mark) onpick(mark);
    }}
  >
    {#snippet under()}
      {#each model.layers as layer (layer.kind)}
        <JoinedPlaces {layer} {layout} />
      {/each}
      <MoveArrows marks={marks.flatMap((mark) => markOf(mark) ?? [])} {layout} />
      <ZoneBracket
        {zone}
        {layout}
        onmove={(low, high) => {
          dragging = true;
          study.dragZone(fitZone(study.neck, low, high));
        }}
        onend={() => {
          dragging = false;
          study.keepZone();
        }}
        onpress={model.toggleWhole}
        title={model.whole
          ? 'Press for the zone only. Drag it.'
          : 'Press for the whole neck. Drag it.'}
        frets={study.neck.frets}
      />
    {/snippet}
    {#snippet over()}
      {#if flags.length > 0}
        {#await import('$lib/neck/TargetFlags.svelte') then { default: TargetFlags }}
          <TargetFlags
            {flags}
            {layout}
            places={model.marks}
            onpin={(time, place) => {
              const index = time === 'now' ? study.now?.index : study.next?.index;
              if (index !== undefined) model.pin(index, place);
            }}
          />
        {/await}
      {/if}
    {/snippet}
  </Neck>
</div>
