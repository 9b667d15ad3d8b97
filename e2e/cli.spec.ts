import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { encodeWav, resample } from '../core/audio/samples/index.ts';
import { clapsAt, voice } from '../core/desk-tests/stand-ins/index.ts';
import { renderTune } from '../core/desk-tests/tunes/index.ts';
import { boathouse } from '../demo/boathouse.ts';
import { skerryNet } from '../demo/skerry-net.ts';
import { UNSAID } from './unsaid.ts';

const folder = mkdtempSync(join(tmpdir(), 'mellow-cli-'));
const file = (name: string, content: string | Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const mellow = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['bin/mellow', ...args], {
    encoding: 'utf8',
    timeout: 120_000,
  });
  // Nothing that core says goes out without its words.
  expect(`${stdout}${stderr}`).not.toMatch(UNSAID);
  return { status, stdout, stderr };
};
const json = (...args: string[]) => {
  const done = mellow(...args, '--json');
  expect(done.stderr).toBe('');
  expect(done.status).toBe(0);
  return JSON.parse(done.stdout);
};

test('hear answers for every listener what arrives and what was wanted', () => {
  const { listeners } = json('hear', file('rig.json', JSON.stringify(boathouse)));
  const stream = listeners.find((l: { listener: string }) => l.listener === 'stream');
  const couch = stream.arrivals.find((a: { source: string }) => a.source === 'couch');
  expect(couch).toMatchObject({
    wanted: 'must',
    level: { unit: 'dBFS' },
    conversions: 1,
    inTimeWith: 'couch',
    polarity: 1,
  });
  expect(couch.delayMs.low).toBeLessThan(couch.delayMs.nominal);
  expect(couch.offsetMs.nominal).toBeCloseTo(-85.6, 1);
  expect(couch.way.map((w: { device: string }) => w.device)).toEqual([
    'couch',
    'camera',
    'camera-capture',
    'desk-computer',
    'capture-program',
  ]);
});

test('align answers with settings within each device, what remains, and that nothing is better', () => {
  const rig = file('align.json', JSON.stringify(boathouse));
  const { settings, offsets, beyondMs, proven } = json('align', rig);
  expect(settings).toContainEqual(
    expect.objectContaining({ device: 'capture-program', setting: 'in-4-picture-delay', value: 168, unit: 'ms' }),
  );
  expect(offsets).toContainEqual(
    expect.objectContaining({ source: 'couch', listener: 'stream', toleranceMs: [-40, 60], beyondMs: 0, why: null }),
  );
  expect([beyondMs, proven]).toEqual([0, true]);
  const edit = json('align', rig, '--tracks', 'edit');
  expect(edit.slippedInTheEdit).toContain('track-3');
  expect(edit.settings.length).toBeLessThanOrEqual(settings.length);
  expect(mellow('align', rig).stdout).toContain('no other settings do better (proven)');
});

test('a moment of the session is asked for by its id or name', () => {
  const rig = file('skerry.json', JSON.stringify(skerryNet));
  const heardBy = (...more: string[]) =>
    json('hear', rig, ...more).listeners.find((l: { listener: string }) => l.listener === 'boat-a').arrivals;
  expect(heardBy()).toEqual([]);
  for (const name of ['send-a', 'Send A'])
    expect(heardBy('--moment', name).map((a: { source: string }) => a.source)).toEqual(['operator']);
  const wrong = mellow('hear', rig, '--moment', 'supper');
  expect(wrong.status).toBe(2);
  expect(wrong.stderr).toContain('There is no moment “supper”. There are: send-a, send-b.');
  expect(json('tap', rig, 'boat-a-radio.front', '--moment', 'send-a').channels[0].arrivals).toHaveLength(1);
});

test('a rig is told in which order it is plugged and switched on, and why; short, since another, and down', () => {
  const rig = file('order.json', JSON.stringify(boathouse));
  const kinds = (...more: string[]): string[] => json('order', rig, ...more).steps.map((s: { kind: string }) => s.kind);
  const first = kinds();
  expect(first[0]).toBe('quiet');
  expect(first.at(-1)).toBe('volume-up');
  expect(first.lastIndexOf('plug')).toBeLessThan(first.indexOf('power-on'));
  expect(kinds('--for', 'standing')).not.toContain('plug');
  expect(kinds('--since', rig)).not.toContain('plug');
  expect(kinds('--for', 'down')[0]).toBe('end');
  expect(mellow('order', rig).stdout).toMatch(/^1\. .*all the way down\.\n {3}Plugging and switching cause/);
  expect(mellow('order', rig, '--for', 'teapot').status).toBe(2);
});

test('a desk is made of a line, told what fits, and put on paper', () => {
  const made = json('new', 'console > splitter > capture > computer; mic > mixer; teapot > mixer');
  expect(made.understood).toContainEqual({ words: 'console', typeId: 'game-console', count: 1 });
  expect(made.unknown).toEqual(['teapot']);
  expect(made.assumed).toContainEqual(expect.stringContaining('Streaming app takes Capture as input 1'));
  expect(made.asked[0]).toMatchObject({ choices: expect.arrayContaining(['Streaming']), taken: 'Streaming' });
  const { rig } = made;
  const printed = mellow('new', 'console > splitter > capture > computer; mic > mixer; teapot > mixer');
  expect(JSON.parse(printed.stdout)).toEqual(rig);
  expect(printed.stderr).toContain('Not understood, left out: “teapot”');
  const path = file('desk.json', JSON.stringify(rig));
  expect(json('check', path).findings.length).toBeGreaterThan(0);
  const { offers } = json('plug', path, 'splitter.out-2');
  expect(offers[0]).toMatchObject({ medium: 'lead', parts: ['cable, HDMI to HDMI'], priceEur: [5, 20] });
  const { sheets } = json('export', path, 'labels', '--paper', 'letter');
  expect(sheets[0]).toContain('width="215.9mm"');
  expect(mellow('export', path, 'leads', '--paper', 'a4').stdout).toMatch(/^cable,from device,/);
  for (const bad of [
    ['new', 'kettle > teapot'],
    ['plug', path, 'nobody.in'],
    ['plug', path, 'mixer.nowhere'],
    ['export', path, 'teapot', '--paper', 'a4'],
    ['export', path, 'map', '--paper', 'papyrus'],
  ]) {
    const done = mellow(...bad);
    expect(done.status, bad.join(' ')).toBe(2);
    expect(done.stderr.trim().split('\n')).toHaveLength(1);
  }
});

test('offset and claps answer by the contract', () => {
  const x = voice(180)(6 * 16_000, 16_000, 3);
  const ref = file('ref.wav', encodeWav([x], 16_000));
  const other = file('other.wav', encodeWav([resample(x, -1234.5 * 16, 1, 8 * 16_000).map((v) => -v)], 16_000));
  const found = json('offset', ref, other);
  expect(found.offsetMs).toBeCloseTo(1234.5, 1);
  expect(found.confidence).toBeGreaterThan(0.9);
  expect(found.polarity).toBe(-1);
  const claps = json('claps', file('claps.wav', encodeWav([clapsAt([0.5, 1.7])(3 * 48_000, 48_000, 1)], 48_000)));
  expect(claps.claps.map((c: { atMs: number }) => Math.round(c.atMs))).toEqual([500, 1700]);
});

test('correct writes a take that lies to the other one, its time reference with it, and never over a take', () => {
  const talk = voice(150)(16_000 * 12, 16_000, 8);
  const ref = file('first.wav', encodeWav([talk], 16_000));
  const late = file('late.wav', encodeWav([resample(talk, -8000, 1, talk.length)], 16_000));
  const out = join(folder, 'mended.wav');
  const done = json('correct', ref, late, out, '--time-reference', '48000');
  expect(done.movedMs).toBeCloseTo(-500, 1);
  expect(Math.abs(json('offset', ref, out).offsetMs)).toBeLessThan(0.1);
  expect(mellow('correct', ref, late, late).stderr).toContain('Name a new file');
  expect(mellow('correct', ref, late, out, '--time-reference', 'noon').status).toBe(2);
});

test('loudness answers by the contract: a tone of -23 dBFS on both sides, and null for silence', () => {
  const tone = Float32Array.from(
    { length: 10 * 48_000 },
    (_, i) => 10 ** (-23 / 20) * Math.sin((2 * Math.PI * 997 * i) / 48_000),
  );
  const told = json('loudness', file('tone.wav', encodeWav([tone, tone], 48_000)));
  for (const key of ['integratedLufs', 'maxMomentaryLufs', 'maxShortTermLufs', 'truePeakDbtp', 'samplePeakDbfs'])
    expect(Math.abs(told[key] + 23), key).toBeLessThan(0.1);
  expect(told.rangeLu).toBeLessThan(0.1);
  const silent = json('loudness', file('silent.wav', encodeWav([new Float32Array(48_000)], 48_000)));
  expect(Object.values(silent)).toEqual([null, null, null, null, null, null]);
  const many = mellow('loudness', file('many.wav', encodeWav([tone, tone, tone], 48_000)));
  expect(many.status).toBe(2);
  expect(many.stderr).toContain('which channel belongs to which speaker');
  // A recorder that was switched off never wrote its length: what is there is measured, and that is told beside it.
  const cut = encodeWav([tone, tone], 48_000);
  new DataView(cut.buffer).setUint32(4, 0, true);
  new DataView(cut.buffer).setUint32(40, 0, true);
  const unfinished = json('loudness', file('unfinished.wav', cut));
  expect(unfinished.integratedLufs).toBeCloseTo(told.integratedLufs, 3);
  expect(unfinished.notes).toEqual([expect.stringMatching(/unfinished\.wav: The recording was never finalized/)]);
  expect(told.notes).toBeUndefined();
  const slow = encodeWav([tone], 1);
  expect(mellow('loudness', file('slow.wav', slow)).stderr).toContain('4 to 768 kHz');
});

test('diagnose answers by the contract: what is wrong, how badly, and what shows it', () => {
  const loud = voice(130)(8 * 48_000, 48_000, 5).map((v) => Math.max(-0.5, Math.min(0.5, 8 * v)));
  const { findings } = json('diagnose', file('cut.wav', encodeWav([loud, loud.map((v) => -v)], 48_000)));
  expect(findings.map((f: { id: string }) => f.id).sort()).toEqual(['clipping', 'polarity-inverted']);
  for (const f of findings) {
    expect(['fix', 'watch']).toContain(f.severity);
    expect(f.evidence).toMatch(/\d/);
  }
  expect(mellow('diagnose', file('cut.wav', encodeWav([loud], 48_000))).stdout).toContain('clipped at -6.0 dBFS');
  const silent = json('diagnose', file('none.wav', encodeWav([new Float32Array(48_000)], 48_000)));
  expect(silent.findings).toMatchObject([{ id: 'silent', severity: 'fix' }]);
});

test('check says what is wrong, and tap what is there', () => {
  const rig = file('boathouse.json', JSON.stringify(boathouse));
  const { findings } = json('check', rig);
  const twice = findings.find((f: { rule: string }) => f.rule === 'plan-twice');
  expect(twice).toMatchObject({ severity: 'fix', where: { sourceId: 'couch-game' } });
  expect(twice.fixes[0]).toMatchObject({
    label: expect.stringMatching(/Channels 5 and 6/),
    edit: { kind: 'set-setting' },
  });
  for (const finding of findings) {
    expect(['stop', 'fix', 'watch']).toContain(finding.severity);
    expect(finding.says).toMatch(/[.]$/);
  }
  const { channels } = json('tap', rig, 'mixer.strip-1');
  expect(channels).toHaveLength(1);
  expect(channels[0].arrivals[0]).toMatchObject({ source: 'wren', way: ['wren', 'wren-microphone', 'mixer'] });
  expect(mellow('tap', rig, 'mixer.nowhere')).toMatchObject({
    status: 2,
    stderr: expect.stringMatching(/It has: strip-1/),
  });
  expect(mellow('tap', rig, 'nobody.x').stderr).toMatch(/There are: /);
});

test('picture tells what a mode asks of its link', () => {
  expect(json('picture', '3840x2160@120', '--bits', '10', '--chroma', '4:4:4')).toMatchObject({
    pixelClockMhz: 1188,
    dataRateGbps: 35.64,
    minimumLink: 'frl-40',
  });
  expect(json('picture', '--chroma', '4:4:4', '--bits', '8', '7680x4320@60').minimumLink).toBe('none');
});

test('bad input ends with 2 and one line that says what to do', () => {
  const whole = encodeWav([new Float32Array(8000)], 8000);
  const rig = structuredClone(boathouse);
  const cases: string[][] = [
    ['claps', file('picture.wav', Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3, 4, 5, 6, 7, 8, 9]))],
    ['claps', file('cut.wav', whole.subarray(0, 4000))],
    ['claps', file('no-channels.wav', whole.slice().fill(0, 22, 24))],
    ['offset', file('silent.wav', whole), file('silent2.wav', whole)],
    ['offset', file('one.wav', whole)],
    ['claps', join(folder, 'not-there.wav')],
    ['claps', folder],
    ['hear', file('proto.json', '{"schemaVersion":1,"__proto__":{"x":1}}')],
    ['hear', file('deep.json', `{"schemaVersion":1,"types":${'['.repeat(10_000)}${']'.repeat(10_000)}}`)],
    ['hear', file('twice.json', JSON.stringify({ ...rig, devices: [...rig.devices, rig.devices[0]] }))],
    [
      'hear',
      file(
        'nowhere.json',
        JSON.stringify({ ...rig, cables: [{ ...rig.cables[0], to: { deviceId: 'x', portId: 'y' } }] }),
      ),
    ],
    ['dance'],
    ['hear', '--loud', 'x.json'],
    ['picture', '3840x2160@60', '--bits', '9', '--chroma', '4:4:4'],
    ['picture', '4k', '--bits', '8', '--chroma', '4:4:4'],
    ['picture', '3840x2160@60', '--bits', '8'],
    ['picture', '3840x2160@60', '--chroma', '4:4:4', '--bits'],
  ];
  for (const args of cases) {
    const { status, stdout, stderr } = mellow(...args);
    expect(status, args.join(' ')).toBe(2);
    expect(stdout).toBe('');
    expect(stderr, args.join(' ')).toMatch(/^mellow: [^\n]+[.)\]]\n$/);
    expect(stderr).not.toContain(' at ');
  }
  expect(mellow('claps', join(folder, 'cut.wav'), '--as-it-is').status).toBe(0);
});

test('what can be wrong is told with where to look first, and narrowed by what was looked at', async () => {
  const rig = file('trouble.json', JSON.stringify(boathouse));
  const silent = ['trouble', rig, 'no-sound', 'backup', '--source', 'wren'] as const;
  const first = json(...silent);
  expect(first.named).toBe(false);
  expect(first.suspects[0]).toMatchObject({ says: '“Mixer”, Channel 1, mute: on instead of off.' });
  const nothing = first.next.answers.find((a: { answer: string }) => a.answer === 'nothing');
  const second = json(...silent, '--said', `${first.next.key}=${nothing?.answer ?? first.next.answers[0].answer}`);
  expect(second.next.key).not.toBe(first.next.key);
  expect(second.suspects).not.toEqual(first.suspects);
  expect(mellow(...silent).stdout).toMatch(/^ ?\d+% “Mixer”, Channel 1, mute[\s\S]*\nCheck: /);
  expect(mellow('trouble', rig, 'no-sound', 'backup').status).toBe(2);
  expect(mellow('trouble', rig, 'no-tea', 'backup').stderr).toContain('Unknown symptom');
  expect(mellow('trouble', rig, 'hum', 'nobody').stderr).toContain('Unknown destination');
  expect(mellow('export', rig, 'settings', '--paper', 'a4').stdout).toContain('current settings');
});

test('the tune of a source is written as a WAV, the same each time', async () => {
  const [one, two] = [join(folder, 'tune 3.wav'), join(folder, 'again.wav')];
  expect(json('tune', '3', one)).toMatchObject({ tune: 3, seconds: 17, sampleRateHz: 48_000 });
  json('tune', '3', two);
  expect(readFileSync(one).equals(readFileSync(two))).toBe(true);
  expect(json('loudness', one).samplePeakDbfs).toBeCloseTo(-6, 1);
  expect(mellow('tune', '17', one).stderr).toContain('from 1 to 16');
  expect(mellow('tune', '3', one, '--rate', '8000').status).toBe(2);
});

test('a take is read for tunes: which, how loud, when, and none where none is', async () => {
  const rate = 48_000;
  const quiet = new Float32Array(20 * rate);
  quiet.set(
    renderTune(2, rate).map((v) => 0.1 * v),
    rate,
  );
  const take = file('take.wav', encodeWav([quiet], rate));
  const { tunes } = json('tunes', take);
  expect(tunes).toHaveLength(16);
  expect(tunes.filter((t: { word: string }) => t.word === 'found')).toMatchObject([
    { tune: 3, confidence: 0.999, polarity: 1, seconds: [], jump: null },
  ]);
  expect(tunes[2].atMs).toBeCloseTo(2000, 1);
  expect(Math.abs(tunes[2].gainDb + 20)).toBeLessThan(1.5);
  expect(mellow('tunes', take).stdout).toMatch(
    /tune {2}3 {2}at 2000\.\d ms, -(19|2\d)\.\d dB, -?0\.\d ppm, confidence 0.999/,
  );
  const silent = json('tunes', file('silent.wav', encodeWav([new Float32Array(10 * rate)], rate)));
  expect(silent).toEqual({ tunes: null });
});
