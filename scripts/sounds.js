/**
 * Renders the samples of the band into static/sounds: `node scripts/sounds.js`. Run once, by hand, on
 * a Debian machine with `fluidsynth flac fluid-soundfont-gm`; the files it makes are kept.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import midiFile from 'midi-file';

const SOUNDFONT = process.env.SOUNDFONT || '/usr/share/sounds/sf2/FluidR3_GM.sf2';
const INTO = fileURLToPath(new URL('../static/sounds/', import.meta.url));
const RATE = 32_000;
/** Seconds from one note's beginning to the next one's: what a note rings on must be over. */
const APART = 6;
const DRUM_CHANNEL = 9;

/** General MIDI programs, counted from 0, and every which pitch is sampled. */
const PITCHED = [
  { name: 'double-bass', program: 32, low: 28, high: 56, step: 4, seconds: 2.2 },
  { name: 'bass-guitar', program: 33, low: 28, high: 56, step: 4, seconds: 2.2 },
  { name: 'piano', program: 0, low: 46, high: 76, step: 5, seconds: 2.6 },
  { name: 'guitar', program: 26, low: 40, high: 88, step: 4, seconds: 2.2, soft: true },
];
/** Keys of the General MIDI drum map. */
const DRUMS = {
  kick: 36,
  snare: 38,
  rim: 37,
  hat: 42,
  'open-hat': 46,
  'pedal-hat': 44,
  ride: 51,
  crash: 49,
  tom: 45,
};
const DRUM_SECONDS = 1.1;
/** Drums that sound otherwise when struck softly; the sound font has one strength of the rest. */
const SOFT_DRUMS = ['kick', 'snare'];
/** How hard keys are struck. */
const VELOCITY = { loud: 100, soft: 55 };

const folder = mkdtempSync(join(tmpdir(), 'corvel-sounds-'));

/** One note after another, as the synthesiser plays them. */
function renderNotes(channel, program, keys, seconds, velocity = VELOCITY.loud) {
  const ticks = 480;
  const events = [{ deltaTime: 0, type: 'setTempo', microsecondsPerBeat: 1_000_000 }];
  if (program !== null)
    events.push({ deltaTime: 0, type: 'programChange', channel, programNumber: program });
  for (const noteNumber of keys) {
    events.push({ deltaTime: 0, type: 'noteOn', channel, noteNumber, velocity });
    const held = Math.round(seconds * ticks);
    events.push({ deltaTime: held, type: 'noteOff', channel, noteNumber, velocity: 0 });
    events.push({ deltaTime: APART * ticks - held, type: 'marker', text: '' });
  }
  events.push({ deltaTime: 0, type: 'endOfTrack' });
  const midi = join(folder, 'notes.mid');
  const wav = join(folder, 'notes.wav');
  writeFileSync(
    midi,
    Buffer.from(
      midiFile.writeMidi({
        header: { format: 0, numTracks: 1, ticksPerBeat: ticks },
        tracks: [events],
      }),
    ),
  );
  execFileSync(
    'fluidsynth',
    ['-niq', '-R', '0', '-C', '0', '-g', '0.7', '-r', `${RATE}`, '-F', wav, SOUNDFONT, midi],
    { stdio: 'pipe' },
  );
  const bytes = readFileSync(wav);
  const data = bytes.indexOf('data') + 8;
  const frames = Math.floor((bytes.length - data) / 4);
  return Float32Array.from({ length: frames }, (_, frame) => {
    const at = data + 4 * frame;
    return (bytes.readInt16LE(at) + bytes.readInt16LE(at + 2)) / 65_536;
  });
}

/** The note that begins at a second: from where it is heard, faded out at its end. */
function cut(samples, second, seconds) {
  const from = Math.round(second * RATE);
  const whole = samples.subarray(from, from + Math.round(seconds * RATE));
  const loudest = whole.reduce((most, one) => Math.max(most, Math.abs(one)), 0);
  const begins = Math.max(0, whole.findIndex((one) => Math.abs(one) > loudest / 200) - 16);
  const fade = Math.round(0.25 * RATE);
  return whole
    .subarray(begins)
    .map((one, index, { length }) => one * Math.min(1, (length - index) / fade) * (0.8 / loudest));
}

function keep(name, samples) {
  const wav = join(folder, 'one.wav');
  const header = Buffer.alloc(44);
  header.write('RIFF', 0);
  header.writeUInt32LE(36 + 2 * samples.length, 4);
  header.write('WAVEfmt ', 8);
  header.writeUInt32LE(16, 16);
  header.writeUInt16LE(1, 20);
  header.writeUInt16LE(1, 22);
  header.writeUInt32LE(RATE, 24);
  header.writeUInt32LE(2 * RATE, 28);
  header.writeUInt16LE(2, 32);
  header.writeUInt16LE(16, 34);
  header.write('data', 36);
  header.writeUInt32LE(2 * samples.length, 40);
  const body = Buffer.alloc(2 * samples.length);
  samples.forEach((one, index) => body.writeInt16LE(Math.round(32_767 * one), 2 * index));
  writeFileSync(wav, Buffer.concat([header, body]));
  const file = join(INTO, `${name}.flac`);
  execFileSync('flac', ['--best', '--silent', '--force', '-o', file, wav]);
}

try {
  for (const { name, program, low, high, step, seconds, soft } of PITCHED) {
    const keys = [];
    for (let key = low; key <= high; key += step) keys.push(key);
    const samples = renderNotes(0, program, keys, seconds);
    keys.forEach((key, index) => keep(`${name}-${key}`, cut(samples, index * APART, seconds)));
    if (!soft) continue;
    const softer = renderNotes(0, program, keys, seconds, VELOCITY.soft);
    keys.forEach((key, index) => keep(`${name}-${key}-soft`, cut(softer, index * APART, seconds)));
  }
  const keys = Object.values(DRUMS);
  const samples = renderNotes(DRUM_CHANNEL, null, keys, DRUM_SECONDS);
  Object.keys(DRUMS).forEach((name, index) => {
    keep(`drum-${name}`, cut(samples, index * APART, DRUM_SECONDS));
  });
  const softKeys = SOFT_DRUMS.map((name) => DRUMS[name]);
  const softer = renderNotes(DRUM_CHANNEL, null, softKeys, DRUM_SECONDS, VELOCITY.soft);
  SOFT_DRUMS.forEach((name, index) => {
    keep(`drum-${name}-soft`, cut(softer, index * APART, DRUM_SECONDS));
  });
} finally {
  rmSync(folder, { recursive: true, force: true });
}
