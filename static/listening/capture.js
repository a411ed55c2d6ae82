/** Hands what comes in, one channel of it, to the page: so many samples at a time. */
const SIZE = 1024;

class Capture extends AudioWorkletProcessor {
  samples = new Float32Array(SIZE);
  filled = 0;

  process([input]) {
    const channel = input[0];
    // Where nothing is connected it is silent, and time goes on.
    const block = channel ?? new Float32Array(128);
    this.samples.set(block, this.filled);
    this.filled += block.length;
    if (this.filled >= SIZE) {
      const end = currentTime + block.length / sampleRate;
      this.port.postMessage({ samples: this.samples, from: end - SIZE / sampleRate }, [
        this.samples.buffer,
      ]);
      this.samples = new Float32Array(SIZE);
      this.filled = 0;
    }
    return true;
  }
}

registerProcessor('corvel-capture', Capture);
