/** `transcribe`: a recording as the one melody line that is played in it. */
import { z } from 'zod';
import { readWav } from '$core/formats/sound/wav';
import { notesIn } from '$core/listening/notes';
import { question } from '../question';
import { accept, refuse } from '../refusals';

const answer = z.object({
  seconds: z.number().describe('Length of the recording'),
  notes: z.array(
    z.object({
      seconds: z.number().describe('When it begins'),
      length: z.number().describe('In seconds'),
      midi: z.int(),
      cents: z.number().describe('How far from that pitch'),
      clarity: z.number().describe('0 to 1'),
      bent: z.number().optional().describe('Half steps it is bent by while it sounds'),
    }),
  ),
});

const rounded = (value: number) => Math.round(value * 1000) / 1000;

export const transcribe = question({
  summary: 'The notes of a recording (a WAV file of one or two channels): one melody line.',
  takes: 'sound',
  request: z.instanceof(Uint8Array),
  answer,
  ask(bytes) {
    const read = readWav(bytes);
    if (!read.ok) return refuse({ code: 'invalid_request', message: read.message });
    const { samples, rate } = read.recording;
    return accept({
      seconds: rounded(samples.length / rate),
      notes: notesIn(samples, rate).map((note) => ({
        seconds: rounded(note.seconds),
        length: rounded(note.length),
        midi: note.midi,
        cents: note.cents,
        clarity: rounded(note.clarity),
        ...(note.bent === 0 ? {} : { bent: note.bent }),
      })),
    });
  },
});
