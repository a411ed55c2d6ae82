/** Hands what comes in, one channel of it, to the page: so many samples at a time, with their time. */
const SIZE = 1024;
/**
 * Chromium's count of frames now and then stands still for some blocks and catches up after: only what
 * it is ahead by for so many blocks was left out.
 */
const PATIENCE = 32;

class Capture extends AudioWorkletProcessor {
  samples = new Float32Array(SIZE);
  filled = 0;
  /** The frame that is to come next, counted here. */
  next = null;
  ahead = 0;

  hand(block) {
    for (let from = 0; from < block.length;) {
      const part = block.subarray(from, from + SIZE - this.filled);
      this.samples.set(part, this.filled);
      this.filled += part.length;
      this.next += part.length;
      from += part.length;
      if (this.filled < SIZE) continue;
      const begins = (this.next - SIZE) / sampleRate;
      this.port.postMessage({ samples: this.samples, from: begins }, [this.samples.buffer]);
      this.samples = new Float32Array(SIZE);
      this.filled = 0;
    }
  }

  process([input]) {
    this.next ??= currentFrame;
    const left = currentFrame - this.next;
    this.ahead = left > 0 ? this.ahead + 1 : 0;
    if (this.ahead >= PATIENCE) {
      // Time goes on where something was left out.
      this.hand(new Float32Array(left));
      this.ahead = 0;
    }
    // Where nothing is connected it is silent.
    this.hand(input[0] ?? new Float32Array(128));
    return true;
  }
}

registerProcessor('corvel-capture', Capture);
