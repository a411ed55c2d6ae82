/** Every question the engine answers over HTTP: one file each in `questions/`, one row here. */
import { band } from './questions/band';
import { chains } from './questions/chains';
import { chart } from './questions/chart';
import { collections } from './questions/collections';
import { coverage } from './questions/coverage';
import { crossings } from './questions/crossings';
import { drill } from './questions/drill';
import { exercise } from './questions/exercise';
import { fit } from './questions/fit';
import { homes } from './questions/homes';
import { into } from './questions/into';
import { landings } from './questions/landings';
import { lick } from './questions/lick';
import { nextSessionQuestion } from './questions/nextSession';
import { open } from './questions/open';
import { options } from './questions/options';
import { refinger } from './questions/refinger';
import { route } from './questions/route';
import { transcribe } from './questions/transcribe';
import { triads, voicings } from './questions/voicings';
import { zones } from './questions/zones';
import type { Question } from './question';

export const QUESTIONS: Readonly<Record<string, Question>> = {
  chart,
  open,
  collections,
  zones,
  triads,
  voicings,
  homes,
  options,
  coverage,
  crossings,
  chains,
  route,
  into,
  exercise,
  band,
  lick,
  refinger,
  fit,
  landings,
  transcribe,
  drill,
  'next-session': nextSessionQuestion,
};
