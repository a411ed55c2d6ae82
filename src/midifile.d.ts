/** What the tests use of a MIDI library that ships no types. */
declare module 'midifile' {
  class MIDIFile {
    constructor(buffer: ArrayBufferLike);
    readonly header: { getTicksPerBeat(): number };
    getMidiEvents(): unknown[];
  }
  export { MIDIFile as default };
}
