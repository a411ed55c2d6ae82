/** Six weeks of a made-up player's log, up to the day the demo is first opened. */
import { STANDARD_NECK } from 'corvel-core';
import { readChart } from '$core/chart/form';
import { practiceChart } from '$core/log/practice';
import { hashed } from '$core/random';
import { localMoment, type StintContent } from '$lib/log/messages';

const DAYS = 42;
const DAY = 86_400_000;
/** How often there is a day off. */
const OFF = 0.4;
const ASKED = 20;

/** What is practised from which day on, and how soon it comes to be clean. */
const COURSE = [
  { from: 0, exercise: 'targets', zone: 1, talent: 0.03 },
  { from: 5, exercise: 'ascending', zone: 1, talent: 0.02 },
  { from: 14, exercise: 'targets', zone: 2, talent: 0.022 },
  { from: 20, exercise: 'descending', zone: 1, talent: 0.012 },
  { from: 31, exercise: 'alternating', zone: 2, talent: 0.004 },
] as const;
/** What was left alone for long. */
const LEFT = { until: 12, exercise: 'ascending', zone: 3 } as const;

export function demoStints(id: string, text: string, now: number): readonly StintContent[] {
  const read = readChart(text);
  if (!read.ok) return [];
  const { zones, tempo } = practiceChart(id, read.chart, STANDARD_NECK);
  const stints: StintContent[] = [];
  for (let day = 0; day < DAYS; day++) {
    if (hashed(day, 3) < OFF) continue;
    const under = COURSE.filter(({ from }) => from <= day).slice(-3);
    const things = [...under, ...(day <= LEFT.until ? [{ ...LEFT, from: 0, talent: 0.02 }] : [])];
    for (const [place, { from, exercise, zone, talent }] of things.entries()) {
      const at = localMoment(new Date(now - (DAYS - day) * DAY + place * 9 * 60_000));
      const share = Math.min(0.97, 0.58 + (day - from) * talent + 0.1 * hashed(day, place, 7));
      const bpm = Math.round(tempo * Math.min(1, 0.65 + (day - from) * 0.012));
      stints.push({
        at,
        chart: id,
        exercise,
        zone: zones[zone] ?? { low: 2, high: 6 },
        extent: 'section',
        tempoFrom: bpm,
        tempo: bpm,
        minutes: 4 + Math.floor(4 * hashed(day, place)),
        asked: ASKED,
        landed: Math.round(ASKED * share),
        note: '',
      });
    }
  }
  return stints;
}
