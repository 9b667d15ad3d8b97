import FFT from 'fft.js';
import { loadFft } from '#cli/edges.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { medianMs, type Row } from './report.ts';
import { turned } from './rigs.ts';

/** What runs on every key press: the rig after an edit of one setting. Parsing it is the public yardstick (Zod). */
export async function evaluation(): Promise<readonly Row[]> {
  const json = JSON.stringify(boathouse);
  const changed = (n: number) => {
    const rig = structuredClone(boathouse);
    return { ...rig, name: `${rig.name} ${n}` };
  };
  let n = 0;
  const coldMs = medianMs(50, () => void evaluate(changed(n++)).pairs);
  void evaluate(boathouse).pairs;
  const warmMs = medianMs(300, () => void evaluate(turned(boathouse, n++)).pairs);
  const parseMs = medianMs(100, () => void parseRig(JSON.parse(json)));
  return [
    {
      what: 'evaluate the Boathouse relay after an edit',
      ours: `${warmMs.toFixed(2)} ms (all of it new: ${coldMs.toFixed(2)} ms)`,
      other: `reading and checking the same document, Zod: ${parseMs.toFixed(2)} ms`,
      ratio: parseMs / warmMs,
      goal: 'under 2 ms',
      reached: warmMs < 2,
    },
  ];
}

/** The transform that measuring rests on, against a plain JavaScript one. */
export async function transforms(): Promise<readonly Row[]> {
  const size = 1 << 18;
  const fft = (await loadFft())(size);
  const plainX = Array.from({ length: size }, (_, i) => Math.sin(i * i));
  const x = Float32Array.from(plainX);
  const spectrum = new Float32Array(size);
  const ours = medianMs(40, () => fft.forward(x, spectrum));
  const plain = new FFT(size);
  const out = plain.createComplexArray();
  const theirs = medianMs(40, () => plain.realTransform(out, plainX));
  return [
    {
      what: `real transform of ${size} samples`,
      ours: `${ours.toFixed(2)} ms`,
      other: `fft.js: ${theirs.toFixed(2)} ms`,
      ratio: theirs / ours,
      goal: 'above 1',
      reached: theirs > ours,
    },
  ];
}
