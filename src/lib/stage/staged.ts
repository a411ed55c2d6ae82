/** The chart as it is played in a pass: in its own key, or another, with what is chosen over it. */
import { type BandForm, bandForm } from '$core/band/form';
import { rememberBy } from '$core/cache';
import { type Chart, intervalBetween } from 'corvel-core';
import { readChart } from '$core/chart/form';
import { shiftChart } from '$core/chart/rewrite';
import type { Key } from '$core/keys/keys';
import { type Material, parseMaterial } from '$core/lenses/material';
import { type Interval, transpose } from '$core/notes/notes';
import { transposeMaterial } from '$lib/study/align';
import type { PlannedChord } from '$lib/study/choices';
import type { Loop } from '$lib/study/playing';

export interface Staged {
  readonly chart: Chart;
  readonly key: Key | null;
  readonly planned: readonly PlannedChord[];
}

const moved = (material: Material, interval: Interval): Material =>
  parseMaterial(transposeMaterial(material.name, interval)) ?? material;

/** The chart so many half steps up, spelled the simpler way; as it is where it cannot be moved. */
function shifted({ chart, key, planned }: Staged, text: string, halfSteps: number): Staged | null {
  const written = shiftChart(text, halfSteps, key);
  const read = written === null ? null : readChart(written);
  if (!read?.ok || read.chart.chords.length !== planned.length) return null;
  const there = read.chart;
  const first = there.chords[0]?.chord.root;
  const before = chart.chords[0]?.chord.root;
  if (first === undefined || before === undefined) return null;
  const interval = intervalBetween(before, first);
  return {
    chart: there,
    key: key && { ...key, tonic: transpose(key.tonic, interval) },
    planned: planned.map((one, index): PlannedChord => {
      const played = there.chords[index];
      if (!played) return one;
      const own = intervalBetween(one.chord.root, played.chord.root);
      const then = one.then && { ...one.then, material: moved(one.then.material, own) };
      return { ...one, ...played, material: moved(one.material, own), then };
    }),
  };
}

/** Answers the chart in any key, each moved once. */
export function stager(own: Staged, text: string): (halfSteps: number) => Staged {
  const known = new Map<number, Staged>([[0, own]]);
  return (halfSteps) => {
    const found = known.get(halfSteps) ?? shifted(own, text, halfSteps) ?? own;
    known.set(halfSteps, found);
    return found;
  };
}

/** The band's form for some bars of a chart in a key; the same bars in the same key are the same form. */
export const formsOf = (
  staged: (halfSteps: number) => Staged,
): ((loop: Loop, halfSteps: number) => BandForm) =>
  rememberBy(
    ({ from, to }, halfSteps) => `${from} ${to} ${halfSteps}`,
    (loop, halfSteps) => {
      const { chart, planned } = staged(halfSteps);
      return bandForm(chart, { ...loop, chosen: planned.map(({ material }) => material.notes) });
    },
  );
