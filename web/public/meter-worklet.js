/** Hands what an input hears to the page in pieces of 1024 frames, each with the frame of the clock that it begins at; nothing of it is kept or played. */
class Pieces extends AudioWorkletProcessor {
  constructor() {
    super();
    this.filled = 0;
    this.pieces = [];
  }

  process([input]) {
    if (!input || input.length === 0) return true;
    if (this.pieces.length !== input.length) {
      this.pieces = input.map(() => new Float32Array(1024));
      this.filled = 0;
    }
    input.forEach((channel, c) => {
      this.pieces[c].set(channel, this.filled);
    });
    this.filled += input[0].length;
    if (this.filled === 1024) {
      // The frame that this block of it began at, less what was gathered before.
      const frame = currentFrame + input[0].length - 1024;
      this.port.postMessage(
        { frame, pieces: this.pieces },
        this.pieces.map((p) => p.buffer),
      );
      this.pieces = input.map(() => new Float32Array(1024));
      this.filled = 0;
    }
    return true;
  }
}
registerProcessor('mellow-tap-pieces', Pieces);
