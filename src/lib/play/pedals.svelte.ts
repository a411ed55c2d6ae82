/** Pedals: what sends keys or MIDI controller messages, and what it is taken to mean. */
import type { PedalAction } from '$lib/settings/settings';
import { createHeld } from '$lib/workers/held';

export const PEDAL_NAMES: Readonly<Record<PedalAction, string>> = {
  play: 'Play or stop',
  poorPass: 'That pass was poor',
  lastTime: 'Last time: the band ends',
  tap: 'Tap the tempo',
  lineOnly: 'Only the line',
  loopNext: 'Loop the next bars',
};

/** From here on a controller is pressed, below it let go. */
const PRESSED = 64;
const CONTROLLER = 0xb0;

interface PedalOptions {
  readonly bindings: () => Readonly<Record<string, PedalAction>>;
  readonly onbind: (sent: string, does: PedalAction) => void;
  readonly ondo: (does: PedalAction) => void;
}

export function createPedals({ bindings, onbind, ondo }: PedalOptions) {
  /** What the next press of a pedal is to mean; null while none is being learnt. */
  let learning = $state<PedalAction | null>(null);
  let inputs = $state.raw<readonly string[] | null>(null);
  let failure = $state<string | null>(null);
  const access = createHeld<MIDIAccess>();

  /** A pedal sent something. Answers whether it meant anything. */
  function press(sent: string): boolean {
    if (learning !== null) {
      onbind(sent, learning);
      learning = null;
      return true;
    }
    const does = bindings()[sent];
    if (does === undefined) return false;
    ondo(does);
    return true;
  }

  const heard = ({ data }: MIDIMessageEvent) => {
    if (!data || ((data[0] ?? 0) & 0xf0) !== CONTROLLER) return;
    if ((data[2] ?? 0) >= PRESSED) press(`controller ${data[1] ?? 0}`);
  };
  function listen() {
    const found = [...(access.current?.inputs.values() ?? [])];
    for (const input of found) input.onmidimessage = heard;
    inputs = found.map(({ name }) => name ?? 'unnamed');
  }

  return {
    get learning() {
      return learning;
    },
    learn(does: PedalAction | null) {
      learning = does;
    },
    /** Names of the MIDI inputs listened to; null before they are asked for. */
    get inputs() {
      return inputs;
    },
    get failure() {
      return failure;
    },
    press,
    /** Keys that are learnt come before those of the screen. */
    onkey(event: KeyboardEvent) {
      if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
      if (learning !== null && event.key === 'Escape') {
        learning = null;
        event.preventDefault();
        event.stopPropagation();
        return;
      }
      if (
        learning === null &&
        (event.target as Element).closest('input, select:not([data-keys="page"]), textarea')
      )
        return;
      if (!press(`key ${event.key === ' ' ? 'Space' : event.key}`)) return;
      event.preventDefault();
      event.stopPropagation();
    },
    async openMidi() {
      try {
        if (!('requestMIDIAccess' in navigator)) throw new Error('none');
        const given = await access.begin(async (own) =>
          own(await navigator.requestMIDIAccess(), (ending) => {
            ending.onstatechange = null;
            for (const input of ending.inputs.values()) input.onmidimessage = null;
          }),
        );
        if (!given) return;
        given.onstatechange = listen;
        failure = null;
        listen();
      } catch {
        failure = 'This browser gives no MIDI here. A pedal that sends keys works everywhere.';
      }
    },
    close: access.end,
  };
}

export type Pedals = ReturnType<typeof createPedals>;
