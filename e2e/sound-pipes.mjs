// The pipes of a sound desk, turned by the wall clock in a thread of their own: a test that is busy holds no sound up.
import { closeSync, constants, openSync, readSync, writeSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';

const BYTES_A_FRAME = 8;
/** Delays up to 2.7 s. */
const RING = 1 << 17;
const TICK_MS = 2;

const { outputs, inputs, rateHz, peaks } = workerData;
const sources = outputs.map((file) => openSync(file, constants.O_RDONLY | constants.O_NONBLOCK));
const sinks = inputs.map((file) => openSync(file, constants.O_RDWR | constants.O_NONBLOCK));
const rings = outputs.map(() => [new Float32Array(RING), new Float32Array(RING)]);
let cables = [];
let frame = 0;
const begun = performance.now();

/** How much was moved; nothing where a pipe is full, or empty. */
const moved = (work) => {
  try {
    return work();
  } catch (error) {
    if (error.code === 'EAGAIN') return 0;
    throw error;
  }
};

/** Reads whole frames into the ring of an output; silence where there are none. */
function readOutput(n, count) {
  const bytes = new Float32Array(2 * count);
  const view = new Uint8Array(bytes.buffer);
  let got = 0;
  for (let more = 1; more > 0 && got < view.length; got += more)
    more = moved(() => readSync(sources[n], view, got, view.length - got, null));
  const [left, right] = rings[n];
  for (let i = 0; i < count; i++) {
    const at = (frame + i) & (RING - 1);
    const isThere = (i + 1) * BYTES_A_FRAME <= got;
    left[at] = isThere ? bytes[2 * i] : 0;
    right[at] = isThere ? bytes[2 * i + 1] : 0;
    peaks[n] = Math.max(peaks[n], Math.abs(left[at]), Math.abs(right[at]));
  }
}

function writeInput(n, count) {
  const samples = new Float32Array(2 * count);
  for (const c of cables)
    if (c.to === n)
      for (const side of c.sides) {
        const ring = rings[c.from][side];
        for (let i = 0; i < count; i++) samples[2 * i + side] += c.gain * ring[(frame + i - c.delay) & (RING - 1)];
      }
  moved(() => writeSync(sinks[n], new Uint8Array(samples.buffer)));
}

const timer = setInterval(() => {
  const count = Math.floor(((performance.now() - begun) / 1000) * rateHz) - frame;
  if (count <= 0) return;
  for (const n of sources.keys()) readOutput(n, count);
  for (const n of sinks.keys()) writeInput(n, count);
  frame += count;
}, TICK_MS);

parentPort.on('message', (message) => {
  if (message === 'stop') {
    clearInterval(timer);
    for (const fd of [...sources, ...sinks]) closeSync(fd);
    parentPort.close();
  } else cables = message;
});
