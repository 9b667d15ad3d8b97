import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  bytesInMemory,
  encodeWav,
  layoutName,
  openWav,
  recordingOf,
  seededRandom,
  WavError,
  type WavErrorCode,
} from './index.ts';

interface Chunk {
  id: string;
  body: Uint8Array;
  /** What the header claims, where it does not tell the truth. */
  claims?: number;
}

const text = (s: string) => Uint8Array.from(s, (c) => c.charCodeAt(0));
const little = (bytes: number, value: number) =>
  Uint8Array.from({ length: bytes }, (_, i) => Math.floor(value / 256 ** i) % 256);
const join = (...parts: Uint8Array[]) => Uint8Array.from(parts.flatMap((p) => [...p]));
/** @param mask  of the speakers: written as EXTENSIBLE, where given */
const fmt = (code: number, channels: number, rate: number, bits: number, mask?: number): Chunk => {
  const extensible = mask !== undefined;
  const block = (channels * bits) / 8;
  const plain = join(
    little(2, extensible ? 0xfffe : code),
    little(2, channels),
    little(4, rate),
    little(4, rate * block),
    little(2, block),
    little(2, bits),
  );
  const guid = join(little(2, code), text('\x00\x00\x00\x00\x10\x00\x80\x00\x00\xaa\x00\x38\x9b\x71'));
  return { id: 'fmt ', body: extensible ? join(plain, little(2, 22), little(2, bits), little(4, mask), guid) : plain };
};
const wav = (chunks: Chunk[], form = 'RIFF', size?: number): Uint8Array => {
  const body = join(
    ...chunks.map((c) =>
      join(text(c.id), little(4, c.claims ?? c.body.length), c.body, new Uint8Array(c.body.length % 2)),
    ),
  );
  return join(text(form), little(4, size ?? body.length + 4), text('WAVE'), body);
};
const data = (body: Uint8Array, claims?: number): Chunk => ({
  id: 'data',
  body,
  ...(claims === undefined ? {} : { claims }),
});
const open = (bytes: Uint8Array, asItIs = false) => openWav(bytesInMemory(bytes), { asItIs });
const code = async (bytes: Uint8Array): Promise<WavErrorCode | 'opened'> => {
  try {
    await open(bytes);
    return 'opened';
  } catch (error) {
    if (error instanceof WavError) return error.code;
    throw error;
  }
};

const VALUES = [0, 0.5, -0.5, 0.25, -1, 127 / 128];
const encode: Record<string, { code: number; bits: number; bytes: (v: number) => Uint8Array }> = {
  u8: { code: 1, bits: 8, bytes: (v) => little(1, Math.round(v * 128) + 128) },
  s16: { code: 1, bits: 16, bytes: (v) => little(2, (Math.round(v * 32768) + 65536) % 65536) },
  s24: { code: 1, bits: 24, bytes: (v) => little(3, (Math.round(v * 8388608) + 2 ** 24) % 2 ** 24) },
  s32: { code: 1, bits: 32, bytes: (v) => little(4, (Math.round(v * 2147483648) + 2 ** 32) % 2 ** 32) },
  f32: { code: 3, bits: 32, bytes: (v) => new Uint8Array(Float32Array.of(v).buffer) },
  f64: { code: 3, bits: 64, bytes: (v) => new Uint8Array(Float64Array.of(v).buffer) },
};

describe('a WAV', () => {
  it.each(Object.keys(encode).flatMap((kind) => [false, true].map((extensible) => [kind, extensible] as const)))(
    'of %s (extensible: %s) is read to the bit, channel by channel',
    async (kind, extensible) => {
      const { code: format, bits, bytes } = encode[kind]!;
      // The second channel is the first one turned round.
      const body = join(...VALUES.flatMap((v) => [bytes(v), bytes(-v === 1 ? 127 / 128 : -v)]));
      const recording = await open(wav([fmt(format, 2, 44100, bits, extensible ? 3 : undefined), data(body)]));
      expect(recording).toMatchObject({ sampleRateHz: 44100, channels: 2, frames: VALUES.length });
      const [left, right] = await recording.read(0, VALUES.length);
      expect([...left!]).toEqual(VALUES.map(Math.fround));
      expect([...right!].map((v) => v + 0)).toEqual(VALUES.map((v) => Math.fround(-v === 1 ? 127 / 128 : -v) + 0));
      const mono = await recording.readMono(1, 2);
      expect([...mono]).toEqual([0, 0]);
    },
  );
  it('is read wherever its chunks stand, with others in between, and beyond its ends as silence', async () => {
    const body = join(...VALUES.map((v) => encode.s16!.bytes(v)));
    const bytes = wav([
      { id: 'LIST', body: text('INFOodd') },
      data(body),
      { id: 'cue ', body: little(4, 0) },
      fmt(1, 1, 48000, 16),
    ]);
    const recording = await open(bytes);
    expect([...(await recording.readMono(-2, 5))]).toEqual([0, 0, 0, 0.5, -0.5]);
    expect([...(await recording.readMono(5, 3))]).toEqual([Math.fround(127 / 128), 0, 0]);
    expect([...(await recording.readMono(90, 2))]).toEqual([0, 0]);
  });
  it('as RF64 takes its sizes from ds64', async () => {
    const body = join(...VALUES.map((v) => encode.s16!.bytes(v)));
    const long = {
      id: 'ds64',
      body: join(little(8, 84), little(8, body.length), little(8, VALUES.length), little(4, 0)),
    };
    const recording = await open(wav([long, fmt(1, 1, 96000, 16), data(body, 0xffffffff)], 'RF64', 0xffffffff));
    expect(recording).toMatchObject({ sampleRateHz: 96000, frames: VALUES.length });
  });
  it('that was streamed, its length unknown, goes to the end of the file', async () => {
    const body = join(...VALUES.map((v) => encode.s16!.bytes(v)));
    expect(await open(wav([fmt(1, 1, 48000, 16), data(body, 0xffffffff)], 'RIFF', 0xffffffff))).toMatchObject({
      frames: VALUES.length,
    });
  });
  it('turns what is not a number into silence', async () => {
    const body = join(...[Number.NaN, 1, Number.POSITIVE_INFINITY].map((v) => encode.f32!.bytes(v)));
    expect([...(await (await open(wav([fmt(3, 1, 48000, 32), data(body)]))).readMono(0, 3))]).toEqual([0, 1, 0]);
  });
  it.each<[string, Uint8Array, WavErrorCode]>([
    ['a picture under another name', join(Uint8Array.of(0xff, 0xd8, 0xff, 0xe0), new Uint8Array(60)), 'not-wav'],
    ['nothing at all', new Uint8Array(0), 'not-wav'],
    ['no format', wav([data(new Uint8Array(8))]), 'no-format'],
    ['no sound', wav([fmt(1, 1, 48000, 16)]), 'no-data'],
    ['an empty sound', wav([fmt(1, 1, 48000, 16), data(new Uint8Array(0))]), 'no-data'],
    ['0 channels', wav([fmt(1, 0, 48000, 16), data(new Uint8Array(8))]), 'no-channels'],
    ['a rate of 0', wav([fmt(1, 1, 0, 16), data(new Uint8Array(8))]), 'bad-rate'],
    ['a rate of 1 Hz', wav([fmt(1, 1, 1, 16), data(new Uint8Array(8))]), 'bad-rate'],
    ['a rate of 1 MHz', wav([fmt(1, 1, 1e6, 16), data(new Uint8Array(8))]), 'bad-rate'],
    ['compressed sound', wav([fmt(85, 1, 48000, 16), data(new Uint8Array(8))]), 'unsupported'],
    ['12 bits', wav([fmt(1, 1, 48000, 12), data(new Uint8Array(8))]), 'unsupported'],
    ['more promised than there is', wav([fmt(1, 1, 48000, 16), data(new Uint8Array(8), 96000)]), 'cut-short'],
    ['a wrong size of the whole', wav([fmt(1, 1, 48000, 16), data(new Uint8Array(8))], 'RIFF', 500_000), 'cut-short'],
  ])('with %s is refused by name', async (_, bytes, expected) => {
    expect(await code(bytes)).toBe(expected);
  });
  it('that was never finished is read to its end, and says so', async () => {
    const sevens = Uint8Array.from({ length: 400 }, () => 7);
    const { frames, notes } = await open(wav([fmt(1, 1, 48000, 16), data(sevens, 0)], 'RIFF', 0));
    expect(frames).toBe(200);
    expect(notes).toMatchObject([{ code: 'samples.recordingWasNeverFinalized' }]);
  });
  it.each([
    [6, 0x3f, '5.1'],
    [6, 0x60f, '5.1'],
    [8, 0x63f, '7.1'],
    [4, 0x33, '4.0'],
    [2, 3, 'stereo'],
    [1, 4, 'mono'],
  ])('of %i channels with the mask %i says its layout', async (channels, mask, name) => {
    const { layout } = await open(wav([fmt(1, channels, 48000, 16, mask), data(new Uint8Array(4800))]));
    expect(layoutName(layout!)).toBe(name);
  });
  it('of many channels that names no loudspeakers holds tracks', async () => {
    for (const format of [fmt(1, 6, 48000, 16), fmt(1, 6, 48000, 16, 0), fmt(1, 6, 48000, 16, 3)])
      expect((await open(wav([format, data(new Uint8Array(4800))]))).layout).toBeUndefined();
  });
  it('cut short can be opened as it is', async () => {
    const whole = encodeWav([Float32Array.from({ length: 1000 }, (_, i) => i / 1000)], 8000);
    const cut = whole.subarray(0, 1044);
    expect(await code(cut)).toBe('cut-short');
    const recording = await open(cut, true);
    expect(recording.frames).toBe(500);
    expect((await recording.readMono(499, 1))[0]).toBeCloseTo(0.499, 4);
  });
  it('never crashes on bytes at random', async () => {
    await fc.assert(
      fc.asyncProperty(fc.uint8Array({ maxLength: 200 }), fc.nat(60), async (noise, at) => {
        const bytes = encodeWav([new Float32Array(40)], 8000);
        bytes.set(noise.subarray(0, bytes.length - at), at);
        await code(bytes);
      }),
      { numRuns: 300 },
    );
  });
  it('written by us is read by us, and never wraps round', async () => {
    const random = seededRandom(1);
    const left = Float32Array.from({ length: 3000 }, () => random() * 3 - 1.5);
    const right = left.map((v) => -v / 3);
    const recording = await open(encodeWav([left, right], 48000));
    const [a, b] = await recording.read(0, 3000);
    for (let i = 0; i < 3000; i++) {
      expect(a![i]!).toBeCloseTo(Math.max(-1, Math.min(1, left[i]!)), 3);
      expect(b![i]!).toBeCloseTo(right[i]!, 4);
    }
  });
  it('says what its tracks are called, where that is written anywhere in it', async () => {
    const sides = [0, 1, 2].map((v) => Float32Array.of(v / 4, 0));
    const names = ['Wren & <Ilse>', '', 'Gä“me” 100 %'];
    const named = await open(encodeWav(sides, 48_000, names));
    expect(named.trackNames).toEqual(names);
    expect((await named.read(0, 1)).map(([v]) => v)).toEqual([0, 0.25, 0.5]);
    expect((await open(encodeWav(sides, 48_000))).trackNames).toBeUndefined();
    const list = '<BWFXML><TRACK><NAME>second</NAME><INTERLEAVE_INDEX>2</INTERLEAVE_INDEX></TRACK><TRACK>';
    const chunks = [{ id: 'iXML', body: text(list) }, fmt(1, 2, 8000, 16), { id: 'data', body: text('abcd') }];
    expect((await open(wav(chunks))).trackNames).toEqual(['', 'second']);
    const bytes = { id: 'iXML', body: Uint8Array.of(0xff, 0xfe, 0) };
    expect((await open(wav([bytes, ...chunks.slice(1)]))).trackNames).toBeUndefined();
  });
});

describe('a recording in memory', () => {
  it('reads as a file does', async () => {
    const recording = recordingOf([Float32Array.of(1, 2, 3), Float32Array.of(3, 2, 1)], 8000);
    expect([...(await recording.readMono(-1, 5))]).toEqual([0, 2, 2, 2, 0]);
    expect((await recording.read(1, 2)).map((c) => [...c])).toEqual([
      [2, 3],
      [2, 1],
    ]);
  });
});
