import { readFileSync, readdirSync } from 'node:fs';
import { readChart } from '$core/chart/form';
import { readHarmony } from '$core/harmony/reading';
import { lensContexts, firstOption } from '$core/lenses/options';
import { defaultMaterial } from '$core/lenses/material';
import { proposeIntents } from '$core/lenses/styles';
import { makeExercise } from '$core/exercises/exercises';
import { STANDARD_NECK, pitchAt } from '$core/neck/neck';
import { zonesOf } from '$core/neck/zones';
import { sameChord } from '$core/chords/chords';
import { degreeOver, weightOver } from '$core/chords/over';
import { noteName } from '$core/notes/notes';
import { signatureTonic } from '$core/keys/keys';
import { chordName } from '$core/chords/chords';
import { degreeName } from '$core/notes/degrees';

const texts: [string, string][] = [
  ['iiVI', 'key: C\ntempo: 120\n| Dm7 | G7 | Cmaj7 | % |'],
  [
    'iiVIx4',
    'key: C\ntempo: 120\n| Dm7 | G7 | Cmaj7 | % | Gm7 | C7 | Fmaj7 | % | Fm7 | Bb7 | Ebmaj7 | % | Ebm7 | Ab7 | Dbmaj7 | G7 |',
  ],
  ['blues', 'key: A\ntempo: 100\n| A7 | D7 | A7 | % | D7 | % | A7 | % | E7 | D7 | A7 | E7 |'],
  [
    'turn',
    'key: Bb\n| Bbmaj7 G7 | Cm7 F7 | Dm7 G7 | Cm7 F7 | Fm7 Bb7 | Ebmaj7 Ebm6 | Dm7 G7 | Cm7 F7 |',
  ],
  ['vamp', 'key: D dorian\n| Dm7 | % | % | % | % | % | % | % | Ebm7 | % | % | % | % | % | % | % |'],
  ['waltz', 'key: F\ntime: 3/4\n| Fmaj7 | Dm7 | Gm7 | C7 | Am7 | Dm7 | Gm7 | C7 |'],
  ['minor', 'key: Cm\n| Cm7 | Fm7 | Dm7b5 | G7b9 | Cm7 | Abmaj7 | Dm7b5 G7b9 | Cm6 |'],
  ['pop', 'key: G\n| G | D/F# | Em7 | C | G | D | C | % |'],
  ['slow128', 'key: C\ntime: 12/8\n| C7 | F7 | C7 | % | F7 | % | C7 | A7 | Dm7 | G7 | C7 | G7 |'],
];
for (const f of readdirSync('src/lib/server/demo').filter((x) => x.endsWith('.txt')))
  texts.push([f, readFileSync('src/lib/server/demo/' + f, 'utf8')]);
const only = process.argv[2];
const show = process.argv[3];
for (const [name, text] of texts) {
  if (only && !name.includes(only)) continue;
  const r = readChart(text);
  if (!r.ok) {
    console.log(name, r.problems[0]);
    continue;
  }
  const chart = r.chart;
  const reading = readHarmony(chart);
  const key = reading.key.key;
  const contexts = lensContexts(chart, reading);
  const materials = chart.chords.map(({ index, chord }) => {
    const c = contexts[index];
    return (c && firstOption(c)?.material) ?? defaultMaterial(chord);
  });
  const intents = proposeIntents(chart, reading, 'chord-tones');
  const zones = zonesOf(STANDARD_NECK, key ? signatureTonic(key) : chart.chords[0]!.chord.root);
  const bar = chart.source.time.beats;
  const end = chart.bars.length * bar;
  for (const sub of (process.argv[4] ? [process.argv[4]] : ['eighths']) as any) {
    const agg: Record<string, number[]> = {};
    const firsts = new Map<string, number>();
    const add = (k: string, v: number) => {
      (agg[k] ??= []).push(v);
    };
    const t0 = performance.now();
    let cnt = 0;
    for (const zone of zones)
      for (let seed = 1; seed <= 24; seed++) {
        const ex = makeExercise({
          chart,
          key,
          kind: 'line',
          subdivision: sub,
          neck: STANDARD_NECK,
          zone,
          zones,
          materials,
          intents,
          prefer: ['3', '7'],
          pins: {},
          extent: 'whole',
          from: 0,
          strings: [1, 2, 3],
          group: 4,
          seed,
        });
        cnt++;
        const notes = ex.passage.notes;
        const p = notes.map(
          (n) =>
            pitchAt(STANDARD_NECK, n) +
            ((n.techniques.find((t) => t.kind === 'bend') as any)?.by ?? 0),
        );
        // turns per bar
        let full = 0,
          one = 0,
          off = 0,
          f6 = 0,
          o6 = 0,
          f7 = 0,
          o7 = 0;
        for (let b = 0; b < chart.bars.length; b++) {
          const idx = notes.flatMap((n, i) => (Math.floor(n.beat / bar + 1e-6) === b ? [i] : []));
          if (idx.length === 0 || notes[idx[0]!]!.beat > b * bar + 1e-6) off++;
          if (idx.length < 4) continue;
          full++;
          let way = 0,
            turns = 0;
          for (let k = 1; k < idx.length; k++) {
            const d = Math.sign(p[idx[k]!]! - p[idx[k - 1]!]!);
            if (d && way && d !== way) turns++;
            if (d) way = d;
          }
          if (turns === 1) one++;
          if (idx.length >= 6) {
            f6++;
            if (turns === 1) o6++;
          }
          if (idx.length >= bar * 2 - 1) {
            f7++;
            if (turns === 1) o7++;
          }
        }
        add('one', full ? one / full : 0);
        if (f6) add('one6', o6 / f6);
        if (f7) add('one7', o7 / f7);
        add('off', off / chart.bars.length);
        let sound = 0;
        notes.forEach((n) => (sound += n.beats));
        add('rest', 1 - sound / end);
        // breath each 4 bars sliding by bar
        let nobreath = 0;
        for (let b = 0; b + 4 <= chart.bars.length; b++) {
          const a = b * bar,
            z = a + 4 * bar;
          let cur = a,
            ok = false;
          for (const n of notes) {
            if (n.beat + n.beats <= a || n.beat >= z) continue;
            if (n.beat - cur >= 0.5 - 1e-6) ok = true;
            cur = Math.max(cur, n.beat + n.beats);
          }
          if (z - cur >= 0.5 - 1e-6) ok = true;
          if (!ok) nobreath++;
        }
        add('nobreath', nobreath);
        let saw = 0,
          aba = 0;
        for (let k = 3; k < p.length; k++)
          if (p[k] === p[k - 2] && p[k - 1] === p[k - 3] && p[k] !== p[k - 1]) saw++;
        for (let k = 2; k < p.length; k++) if (p[k] === p[k - 2] && p[k] !== p[k - 1]) aba++;
        add('saw16', saw / Math.max(1, chart.bars.length / 16));
        add('aba8', aba / (chart.bars.length / 8));
        let leap = 0;
        for (let k = 1; k < p.length; k++) if (Math.abs(p[k]! - p[k - 1]!) >= 5) leap++;
        add('leap8', leap / (chart.bars.length / 8));
        let rep = 0;
        for (let k = 1; k < p.length; k++) if (p[k] === p[k - 1]) rep++;
        add('same8', rep / (chart.bars.length / 8));
        let l1 = 0,
          l2 = 0,
          ch = 0;
        chart.chords.forEach((c, i) => {
          if (i > 0 && sameChord(chart.chords[i - 1]!.chord, c.chord)) return;
          ch++;
          const g = (n: any) => n && weightOver(c.chord, degreeOver(c.chord, n.note)) === 'guide';
          if (g(notes.find((n) => n.beat >= c.beat - 0.5 - 1e-6 && n.beat < c.beat + 1 - 1e-6)))
            l1++;
          if (
            g(notes.find((n) => n.beat >= c.beat - 1e-6 && n.beat < c.beat + 1 - 1e-6)) ||
            g(notes.findLast((n) => n.beat <= c.beat + 1e-6 && n.beat + n.beats > c.beat + 1e-6))
          )
            l2++;
        });
        add('D1', l1 / ch);
        add('D2', l2 / ch);
        const last = notes.at(-1)!;
        const lc = chart.chords[last.chord!]!;
        add('endtone', weightOver(lc.chord, degreeOver(lc.chord, last.note)) !== 'colour' ? 1 : 0);
        add('endlen', last.beats);
        add('range', Math.max(...p) - Math.min(...p));
        // motif: 4-note rhythm+contour recurring
        const seen = new Set<string>();
        let back = 0;
        for (let k = 0; k + 3 < notes.length; k++) {
          const w = [0, 1, 2]
            .map(
              (j) =>
                `${(notes[k + j + 1]!.beat - notes[k + j]!.beat).toFixed(2)}${Math.sign(p[k + j + 1]! - p[k + j]!)}`,
            )
            .join();
          const w2 = w;
          if (seen.has(w2)) back++;
          seen.add(w2);
        }
        add('motif', back > 0 ? 1 : 0);
        const gest = notes.filter((n) =>
          n.techniques.some((t) => ['bend', 'slide', 'grace'].includes(t.kind)),
        ).length;
        add('gest12', gest / (chart.bars.length / 12));
        const fb = notes
          .filter((n) => n.beat < bar)
          .map((n) => `${n.beat}:${n.string}:${n.fret}`)
          .join();
        const kk = zone.low + fb;
        firsts.set(kk, (firsts.get(kk) ?? 0) + 1);
        if (show === 'first' && zone === zones[Number(process.argv[5] ?? 0)])
          console.log(
            seed,
            notes
              .filter((n) => n.beat < bar)
              .map((n) => `${n.beat}:${noteName(n.note)}${pitchAt(STANDARD_NECK, n)}`)
              .join(' '),
          );
        if (show && seed <= Number(show) && zone === zones[1]) {
          console.log(`\n--- ${name} seed ${seed} zone ${zone.low}-${zone.high}`);
          for (const b of chart.bars) {
            const cs = chart.chords
              .filter((c) => c.bar === b.number)
              .map((c) => c.chord.symbol)
              .join(' ');
            console.log(
              String(b.number).padStart(3),
              cs.padEnd(16),
              notes
                .filter((n) => Math.floor(n.beat / bar + 1e-6) === b.number - 1)
                .map(
                  (n) =>
                    `${+(n.beat - b.beat).toFixed(2)}:${noteName(n.note)}${pitchAt(STANDARD_NECK, n)}(${degreeName(degreeOver(chart.chords[n.chord!]!.chord, n.note))})${n.part === 'target' ? '*' : ''}${n.techniques.map((t) => t.kind[0]).join('')}/${+n.beats.toFixed(2)}`,
                )
                .join('  '),
            );
          }
        }
      }
    const ms = (performance.now() - t0) / cnt;
    const q = (k: string, f: number) => {
      const s = [...agg[k]!].sort((a, b) => a - b);
      return s[Math.min(s.length - 1, Math.floor(f * s.length))]!;
    };
    const bad = (k: string, t: (v: number) => boolean) => agg[k]!.filter(t).length;
    const m = (k: string) =>
      !agg[k] ? '-' : (agg[k]!.reduce((a, b) => a + b, 0) / agg[k]!.length).toFixed(2);
    console.log(
      name.slice(0, 12).padEnd(13),
      sub.slice(0, 4),
      `n${cnt} ${ms.toFixed(1)}ms one ${m('one')}(${bad('one', (v) => v >= 0.5)}) 6:${m('one6')} 7:${m('one7')} off ${m('off')}(${bad('off', (v) => v < 0.25)}) rest ${m('rest')}(${bad('rest', (v) => v < 0.1 || v > 0.4)}) nobr ${bad('nobreath', (v) => v > 0)} saw ${m('saw16')}(${bad('saw16', (v) => v > 1)}) aba ${m('aba8')} leap ${m('leap8')}(${bad('leap8', (v) => v < 1 || v > 6)}) same ${m('same8')} D1 ${m('D1')}(${bad('D1', (v) => v < 0.75)}) D2 ${m('D2')}(${bad('D2', (v) => v < 0.75)}) end ${m('endtone')} ${q('endlen', 0)} range ${m('range')}(${bad('range', (v) => v < 12)}) motif ${m('motif')} gest ${m('gest12')}(${bad('gest12', (v) => v < 2)}) first ${Math.max(...firsts.values())}`,
    );
  }
}
