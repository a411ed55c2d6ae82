import { afterEach, expect, test, vi } from 'vitest';
import type { PedalAction } from '$lib/settings/settings';
import { createPedals } from './pedals.svelte';

/** Pedals with what they were bound to and what they did, written down. */
function setUp(bound: Record<string, PedalAction> = {}) {
  const done: PedalAction[] = [];
  const pedals = createPedals({
    bindings: () => bound,
    onbind: (sent, does) => (bound[sent] = does),
    ondo: (does) => done.push(does),
  });
  return { pedals, bound, done };
}

/** A MIDI input as the browser would hand it over. */
function simulatedInput() {
  const input: { name: string; onmidimessage: ((event: { data: Uint8Array }) => void) | null } = {
    name: 'Simulated pedal',
    onmidimessage: null,
  };
  const access = { inputs: new Map([['1', input]]), onstatechange: null };
  vi.stubGlobal('navigator', { requestMIDIAccess: () => Promise.resolve(access) });
  const send = (...data: number[]) => input.onmidimessage?.({ data: Uint8Array.from(data) });
  return { input, send };
}

afterEach(() => {
  vi.unstubAllGlobals();
});

test('what is learnt is done, and only once it is', () => {
  const { pedals, bound, done } = setUp();
  expect(pedals.press('key b')).toBe(false);
  pedals.learn('poorPass');
  expect(pedals.press('key b')).toBe(true);
  expect(bound).toEqual({ 'key b': 'poorPass' });
  expect(done).toEqual([]);
  pedals.press('key b');
  expect(done).toEqual(['poorPass']);
});

test('a controller that is pressed counts, let go it does not; other messages are no pedal', async () => {
  const { input, send } = simulatedInput();
  const { pedals, done } = setUp({ 'controller 64': 'play' });
  await pedals.openMidi();
  expect(pedals.inputs).toEqual(['Simulated pedal']);
  send(0xb3, 64, 127);
  send(0xb3, 64, 0);
  send(0x90, 64, 127);
  send(0xb0, 65, 127);
  expect(done).toEqual(['play']);
  pedals.close();
  expect(input.onmidimessage).toBeNull();
});

test('without MIDI it says so', async () => {
  vi.stubGlobal('navigator', {});
  const { pedals } = setUp();
  await pedals.openMidi();
  expect(pedals.failure).toContain('no MIDI');
  expect(pedals.inputs).toBeNull();
});
