/** Opening files away from the page, which goes on whatever they hold. */
import { type PassageResult, type Refusal, refused } from '$core/formats/result';
import type { Neck } from 'corvel-core';
import { createCaller, LateError, LoadError } from './compute';
import type { ChartOpened } from '$lib/formats/charts';

/** Milliseconds a file may take to be read. */
const DEADLINE = 4_500;

function sayWhy(error: unknown): Refusal {
  if (error instanceof LoadError)
    return refused(
      'The part of Corvel that reads files could not be loaded. Nothing was lost; try again.',
    );
  return refused(
    error instanceof LateError
      ? 'This file takes too long to read: it is damaged, or holds more than a chart or a melody.'
      : 'This file could not be read: it is damaged, or holds more than a chart or a melody.',
  );
}

/** The chart in pasted or opened bytes, or why there is none. */
export async function readChartFile(bytes: Uint8Array): Promise<ChartOpened> {
  const caller = createCaller('openChart', undefined, DEADLINE);
  try {
    return await caller.ask(bytes);
  } catch (error) {
    return sayWhy(error);
  } finally {
    caller.close();
  }
}

/** The melody in an opened file, laid on the neck, or why there is none. */
export async function readPassageFile(bytes: Uint8Array, neck: Neck): Promise<PassageResult> {
  const caller = createCaller('openPassage', undefined, DEADLINE);
  try {
    return await caller.ask({ bytes, neck });
  } catch (error) {
    return sayWhy(error);
  } finally {
    caller.close();
  }
}
