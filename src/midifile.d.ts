/** What the tests use of a MIDI library that ships no types. */
declare module 'midifile' {
  export default class MIDIFile {
    constructor(buffer: ArrayBufferLike);
    readonly header: { getTicksPerBeat(): number };
    getMidiEvents(): unknown[];
  }
}
