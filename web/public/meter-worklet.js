/** Hands what an input hears to the page in pieces of 1024 frames; nothing of it is kept or played. */
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
      this.port.postMessage(
        this.pieces,
        this.pieces.map((p) => p.buffer),
      );
      this.pieces = input.map(() => new Float32Array(1024));
      this.filled = 0;
    }
    return true;
  }
}
registerProcessor('mellow-tap-pieces', Pieces);
