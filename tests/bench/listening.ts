/**
 * How much of a rendered guitar is heard, by sound and by tempo. It needs `fluidsynth` and the
 * soundfonts named here (Debian: fluidsynth fluid-soundfont-gm musescore-general-soundfont-small
 * timgm6mb-soundfont); where they are not there it says so. The last soundfont was kept aside while
 * the weights were fitted.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import midi from '@tonejs/midi';
import { readWav } from '$core/formats/sound/wav';
import { notesIn } from '$core/listening/notes';
import { range } from '$core/lists';
import { seeded } from '$core/random';
import { type Figure, quantile } from './report';

const SOUNDFONTS = [
  ['FluidR3', '/usr/share/sounds/sf2/FluidR3_GM.sf2'],
  ['MuseScore', '/usr/share/sounds/sf3/MuseScore_General_Lite.sf3'],
  ['TimGM6mb', '/usr/share/sounds/sf2/TimGM6mb.sf2'],
] as const;
/** General MIDI programs, counted from 0. */
const SOUNDS = [
  ['nylon', 24],
  ['steel', 25],
  ['jazz', 26],
  ['clean', 27],
  ['overdriven', 29],
  ['distorted', 30],
] as const;
/** A name, beats a minute, notes a beat, and the share that is to be found and right. */
const TEMPOS = [
  ['eighths at 140', 140, 2, 97],
  ['sixteenths at 90', 90, 4, 93],
  ['eighths at 200', 200, 2, 93],
] as const;
const NOTES = 64;
const MATCH = 0.06;
const NOISE = 10 ** (-50 / 20) * Math.sqrt(3);

interface Tally {
  played: number;
  heard: number;
  found: number;
  octaves: number;
  late: number[];
  cents: number[];
  seconds: number;
  spent: number;
}
const tally = (): Tally => ({
  played: 0,
  heard: 0,
  found: 0,
  octaves: 0,
  late: [],
  cents: [],
  seconds: 0,
  spent: 0,
});

/** A line of steps, leaps and repeated notes. */
function melody(seed: number, bpm: number, perBeat: number) {
  const draw = seeded(seed);
  const each = 60 / bpm / perBeat;
  let pitch = 52 + Math.floor(draw() * 14);
  return range(0, NOTES).map((index) => {
    const kind = draw();
    const size =
      kind < 0.1 ? 0 : kind < 0.75 ? 1 + Math.floor(draw() * 3) : 4 + Math.floor(draw() * 9);
    const to = pitch + (draw() < 0.5 ? -size : size);
    pitch = to < 40 || to > 88 ? pitch - Math.sign(to - pitch) * size : to;
    const length = each * (draw() < 0.7 ? 0.93 : 0.55);
    return { seconds: 1 + index * each, length, midi: pitch, velocity: 0.5 + 0.4 * draw() };
  });
}

function heardOf(folder: string, font: string, program: number, line: ReturnType<typeof melody>) {
  const song = new midi.Midi();
  const track = song.addTrack();
  track.instrument.number = program;
  for (const { seconds, length, ...note } of line)
    track.addNote({ ...note, time: seconds, duration: length });
  const [score, sound] = [join(folder, 'line.mid'), join(folder, 'line.wav')];
  writeFileSync(score, song.toArray());
  execFileSync(
    'fluidsynth',
    ['-ni', '-R', '0', '-C', '0', '-g', '0.6', '-r', '44100', '-F', sound, font, score],
    { stdio: 'ignore' },
  );
  const read = readWav(readFileSync(sound));
  if (!read.ok) throw new Error(read.message);
  const { samples, rate } = read.recording;
  const draw = seeded(9);
  const noisy = samples.map((value) => value + (draw() * 2 - 1) * NOISE);
  const began = performance.now();
  const notes = notesIn(noisy, rate);
  return { notes, spent: performance.now() - began, seconds: samples.length / rate };
}

function count(
  into: readonly Tally[],
  line: ReturnType<typeof melody>,
  heard: ReturnType<typeof heardOf>,
) {
  const taken = new Set<number>();
  for (const one of into) {
    one.played += line.length;
    one.heard += heard.notes.length;
    one.seconds += heard.seconds;
    one.spent += heard.spent;
  }
  for (const { seconds, midi: pitch } of line) {
    const near = heard.notes
      .map((note, index) => ({ note, index, away: Math.abs(note.seconds - seconds) }))
      .filter(({ index, away }) => away < MATCH && !taken.has(index))
      .sort((a, b) => a.away - b.away)[0];
    if (!near) continue;
    const right = near.note.midi === pitch;
    if (right) taken.add(near.index);
    for (const one of into) {
      if (!right) one.octaves += (near.note.midi - pitch) % 12 === 0 ? 1 : 0;
      else {
        one.found += 1;
        one.late.push(1000 * near.away);
        one.cents.push(Math.abs(near.note.cents));
      }
    }
  }
}

const row = (what: string, { played, heard, found, late, octaves }: Tally): string =>
  `  ${what.padEnd(24)} found ${((100 * found) / played).toFixed(1).padStart(5)} %  right ${((100 * found) / Math.max(1, heard)).toFixed(1).padStart(5)} %  octaves ${octaves}  onsets ${quantile(late, 0.5).toFixed(0)}/${quantile(late, 0.95).toFixed(0)} ms`;

/** The figures, and a table by sound and tempo on the way. */
export function* listeningFigures(): Generator<Figure> {
  const fonts = SOUNDFONTS.filter(([, path]) => existsSync(path));
  if (fonts.length === 0 || !existsSync('/usr/bin/fluidsynth')) {
    console.log('Listening was not measured: it needs fluidsynth and soundfonts.');
    return;
  }
  const folder = mkdtempSync(join(tmpdir(), 'corvel-listening-'));
  const all = tally();
  const tempos = TEMPOS.map(tally);
  try {
    for (const [font, path] of fonts)
      for (const [sound, program] of SOUNDS) {
        const own = tally();
        for (const [index, [, bpm, perBeat]] of TEMPOS.entries()) {
          const line = melody(program * 100 + index, bpm, perBeat);
          count([all, own, tempos[index] ?? own], line, heardOf(folder, path, program, line));
        }
        console.log(row(`${font} ${sound}`, own));
      }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  for (const [index, [name, , , least]] of TEMPOS.entries()) {
    const own = tempos[index] ?? all;
    yield { what: `notes found, ${name}`, value: (100 * own.found) / own.played, unit: '%', least };
    yield { what: `notes right, ${name}`, value: (100 * own.found) / own.heard, unit: '%', least };
  }
  yield { what: 'half of the onsets within', value: quantile(all.late, 0.5), unit: 'ms', most: 10 };
  yield { what: '95 of 100 onsets within', value: quantile(all.late, 0.95), unit: 'ms', most: 30 };
  yield { what: 'pitch at the median', value: quantile(all.cents, 0.5), unit: 'cents', most: 5 };
  yield {
    what: 'octave errors in 200 notes',
    value: (200 * all.octaves) / all.played,
    unit: '',
    most: 1,
  };
  yield {
    what: 'computation for 100 ms of sound',
    value: all.spent / all.seconds / 10,
    unit: 'ms',
    most: 5,
  };
}
