import {
  type ClockReading,
  clockBetween,
  clockLine,
  type Emission,
  FIRST_DBFS,
  isClear,
  isLoudEnough,
  lengthOfRound,
  linksOf,
  onPage,
  type RoundRead,
  roundLevelDbfs,
  type ScanInput,
  type ScanLinkSeen,
  type ScanRead,
  SLOT_S,
  sightOf,
  sweep,
} from '#core/desk-tests/scan/index.ts';
import { openInput } from '#web/shared/listen/index.ts';
import { openScanDesk, type ScanDesk } from '#web/shared/workers/index.ts';
import { scan as say } from '#words/index.ts';

/** A scan as it was made: the links with how they arrived, and what could not be opened. */
export interface ScanMade extends ScanRead {
  readonly links: readonly ScanLinkSeen[];
  /** The computer was too busy, more often than could be made up for: delays may be off. */
  readonly hasLost: boolean;
  readonly skipped: readonly { readonly name: string; readonly why: string }[];
}

export interface ScanProgress {
  /** What plays now; null while devices are opened or the last round is read. */
  readonly playing: { readonly name: string; readonly levelDbfs: number } | null;
  readonly share: number;
}

interface Options {
  /** Nothing that is played is louder, dBFS peak. */
  readonly limitDbfs: number;
  readonly signal: AbortSignal;
  readonly onProgress: (progress: ScanProgress) => void;
}

/** Rounds at most: from what can't be heard up to the limit, and once more. */
const MAX_ROUNDS = 4;
/** Rounds that are played again because samples were lost. */
const MAX_LOST = 4;
/** Clocks are read for so long before the first round, s. */
const WARM_UP_S = 1.2;
const CLOCK_MS = 40;
/** A round is asked for so long before its first sweep, and heard so long after its last, s. */
const LEAD_S = 0.5;
const BEFORE_S = 0.3;
const AFTER_S = 0.35;
/** An input that gave less of a round than this is gone. */
const LEAST_HEARD = 0.6;
/** Not every system says that a device went: it is looked for this often. */
const LOOK_MS = 1000;
const LOCK = 'mellow-tap-scan';

/** A device that the browser only stands in for another that it lists too. */
const isAlias = (d: MediaDeviceInfo): boolean => d.deviceId === 'default' || d.deviceId === 'communications';

/** The devices of one kind, each once. */
function devicesOf(all: readonly MediaDeviceInfo[], kind: MediaDeviceKind): readonly MediaDeviceInfo[] {
  const mine = all.filter((d) => d.kind === kind);
  const real = mine.filter((d) => !isAlias(d));
  return real.length > 0 ? real : mine;
}

interface OpenOutput {
  readonly id: string;
  readonly name: string;
  readonly groupId: string;
  readonly context: AudioContext;
  readonly readings: ClockReading[];
}
interface OpenInput {
  readonly id: string;
  readonly name: string;
  readonly groupId: string;
  readonly track: MediaStreamTrack;
}

/**
 * Plays sweeps out of every output in turn, records every input at once, and reads which arrives where.
 * @throws Error with a sentence where it couldn't go on; nothing is left playing or open then
 */
export async function runScan(options: Options): Promise<ScanMade> {
  const release = await lockScan();
  const desk = openScanDesk();
  const outputs: OpenOutput[] = [];
  const inputs: OpenInput[] = [];
  const ended = endings(options.signal);
  let clocks: ReturnType<typeof setInterval> | undefined;
  try {
    options.onProgress({ playing: null, share: 0 });
    const skipped = await openAll(desk, outputs, inputs, ended);
    clocks = setInterval(() => readClocks(outputs), CLOCK_MS);
    const rounds = await playRounds(desk, outputs, inputs, ended, options);
    const played = rounds.played;
    return {
      at: new Date().toISOString(),
      skipped,
      hasLost: rounds.lostRounds > MAX_LOST,
      links: linksOf(rounds.reads),
      outputs: outputs.map(({ id, name, groupId, context }) => ({
        id,
        name,
        groupId,
        sampleRateHz: context.sampleRate,
        playedDbfs: played.get(id) ?? FIRST_DBFS,
      })),
      inputs: inputs.map(({ id, name, groupId, track }) => ({
        id,
        name,
        groupId,
        sampleRateHz: rounds.rates.get(id)?.sampleRateHz ?? track.getSettings().sampleRate ?? 0,
        channels: rounds.rates.get(id)?.channels ?? 1,
        processing: processingOf(track),
        ...sightOf(rounds.reads, id),
      })),
    };
  } finally {
    clearInterval(clocks);
    ended.over.abort();
    for (const { track } of inputs) track.stop();
    for (const { context } of outputs) if (context.state !== 'closed') void context.close();
    desk.close();
    release();
  }
}

/** Another page that plays would be heard: one scans at a time. */
async function lockScan(): Promise<() => void> {
  return new Promise((resolve, reject) => {
    void navigator.locks.request(LOCK, { ifAvailable: true }, (lock) => {
      if (!lock) {
        reject(new Error(say.anotherPageScans()));
        return undefined;
      }
      return new Promise<void>((release) => resolve(release));
    });
  });
}

interface Endings {
  /** Rejects when the scan has to end. */
  readonly ended: Promise<never>;
  readonly end: (why: string) => void;
  /** Aborted when it is over: what listens is taken away. */
  readonly over: AbortController;
}

/** What ends a scan: someone stops it, or the page goes out of sight, where browsers hold its clocks back. */
function endings(signal: AbortSignal): Endings {
  let end: (why: string) => void = () => undefined;
  const ended = new Promise<never>((_, reject) => {
    end = (why) => reject(new Error(why));
  });
  ended.catch(() => undefined);
  const over = new AbortController();
  const stopped = () => end(say.stopped());
  const hidden = () => document.visibilityState === 'hidden' && end(say.pageWentOutOfSight());
  signal.addEventListener('abort', stopped, { signal: over.signal });
  document.addEventListener('visibilitychange', hidden, { signal: over.signal });
  if (signal.aborted) stopped();
  return { ended, end, over };
}

/** Opens every output and input; what can't be opened is left out, with why. */
async function openAll(
  desk: ScanDesk,
  outputs: OpenOutput[],
  inputs: OpenInput[],
  { ended, end, over }: Endings,
): Promise<ScanMade['skipped']> {
  const open = (inputId: string | null): Promise<MediaStreamTrack> => {
    const opening = openInput(inputId, 2).then(({ stream }) => {
      const track = stream.getAudioTracks()[0]!;
      // Given leave only after it was stopped: it is let go at once.
      if (over.signal.aborted) track.stop();
      return track;
    });
    return Promise.race([opening, ended]);
  };
  // Leave is asked for once: names and outputs are listed after it.
  (await open(null)).stop();
  const all = await navigator.mediaDevices.enumerateDevices();
  // What ended the scan is no fault of a device.
  const unlessEnded = () => Promise.race([ended, null]);
  const skipped: { name: string; why: string }[] = [];
  for (const { deviceId, label, groupId } of devicesOf(all, 'audioinput')) {
    try {
      const track = await open(deviceId);
      track.addEventListener('ended', () => end(say.inputWentAway({ name: label })), { signal: over.signal });
      inputs.push({ id: deviceId, name: label, groupId, track });
      desk.listen(deviceId, track);
    } catch (error) {
      await unlessEnded();
      skipped.push({ name: label, why: (error as Error).message });
    }
  }
  if (inputs.length === 0) throw new Error(say.noInputOpened());
  for (const { deviceId, label, groupId } of devicesOf(all, 'audiooutput')) {
    try {
      const context = new AudioContext({ sinkId: deviceId === 'default' ? '' : deviceId, latencyHint: 'playback' });
      // Where its device goes, browsers play on the computer's own choice.
      context.addEventListener('error', () => end(say.outputWentAway({ name: label })), { signal: over.signal });
      outputs.push({ id: deviceId, name: label, groupId, context, readings: [] });
      await Promise.race([context.resume(), ended]);
    } catch (error) {
      await unlessEnded();
      skipped.push({ name: label, why: (error as Error).message });
      outputs.splice(0, outputs.length, ...outputs.filter((o) => o.id !== deviceId));
    }
  }
  if (outputs.length === 0) throw new Error(say.noOutputOpened());
  const onChange = async () => {
    // Some systems put another device in the place of one that went: its stream goes on.
    const there = new Set((await navigator.mediaDevices.enumerateDevices()).map((d) => d.deviceId));
    const output = outputs.find((o) => !there.has(o.id));
    const input = inputs.find((i) => !there.has(i.id));
    if (output) end(say.outputWentAway({ name: output.name }));
    else if (input) end(say.inputWentAway({ name: input.name }));
  };
  navigator.mediaDevices.addEventListener('devicechange', onChange, { signal: over.signal });
  const look = setInterval(onChange, LOOK_MS);
  over.signal.addEventListener('abort', () => clearInterval(look));
  return skipped;
}

/** Clocks of outputs are read again and again: what a browser says of one may be late. */
function readClocks(outputs: readonly OpenOutput[]): void {
  for (const { context, readings } of outputs) {
    const { contextTime = 0, performanceTime = 0 } = context.getOutputTimestamp();
    if (contextTime > 0 && performanceTime > 0) readings.push({ ownS: contextTime, pageS: performanceTime / 1000 });
  }
}

interface Rounds {
  readonly reads: readonly RoundRead[];
  readonly played: ReadonlyMap<string, number>;
  readonly rates: ReadonlyMap<string, { readonly sampleRateHz: number; readonly channels: number }>;
  readonly lostRounds: number;
}

async function playRounds(
  desk: ScanDesk,
  outputs: readonly OpenOutput[],
  inputs: readonly OpenInput[],
  { ended }: Endings,
  { limitDbfs, onProgress }: Options,
): Promise<Rounds> {
  const reads: RoundRead[] = [];
  let lost = 0;
  const played = new Map<string, number>();
  const rates = new Map<string, { sampleRateHz: number; channels: number }>();
  const waitUntil = (pageS: number) =>
    Promise.race([new Promise<void>((r) => setTimeout(r, Math.max(0, 1000 * pageS - performance.now()))), ended]);
  await waitUntil(performance.now() / 1000 + WARM_UP_S);
  for (let round = 0; round < MAX_ROUNDS; round++) {
    if (reads.length > 1 && outputs.every((o) => isClear(reads, o.id))) break;
    const startS = performance.now() / 1000 + LEAD_S;
    const lengthS = lengthOfRound(round);
    const emissions = outputs.flatMap((output, n) => {
      // Once it is loud enough an output comes up no more.
      const levelDbfs = isLoudEnough(reads, output.id)
        ? (played.get(output.id) ?? FIRST_DBFS)
        : roundLevelDbfs(round, limitDbfs);
      played.set(output.id, levelDbfs);
      return ([0, 1] as const).map((side): Emission => {
        const atS = startS + (2 * n + side) * SLOT_S;
        const playedS = playSide(output, side, atS, levelDbfs, lengthS);
        return { outputId: output.id, side, atS, playedS, levelDbfs, lengthS };
      });
    });
    for (const [n, { id, name }] of outputs.entries()) {
      const share = (round + n / outputs.length) / MAX_ROUNDS;
      onProgress({ playing: { name, levelDbfs: played.get(id)! }, share });
      await waitUntil(startS + (2 * n + 2) * SLOT_S);
    }
    const [fromS, untilS] = [startS - BEFORE_S, startS + 2 * outputs.length * SLOT_S + AFTER_S];
    await waitUntil(untilS + AFTER_S);
    // By the clocks as they have been read since.
    const clocks = new Map(outputs.map((o) => [o.id, clockBetween(o.readings, fromS, untilS)]));
    const timed = emissions.map((e) => {
      const clock = clocks.get(e.outputId);
      return clock ? { ...e, atS: onPage(clock, e.playedS) } : e;
    });
    const heard = await Promise.race([desk.take(fromS, untilS), ended]);
    for (const { id, name } of inputs) {
      const h = heard.find((one) => one.inputId === id);
      if (!h || h.channels[0]!.length < LEAST_HEARD * (untilS - fromS) * h.sampleRateHz)
        throw new Error(say.inputWentAway({ name }));
    }
    for (const h of heard)
      rates.set(h.inputId, { sampleRateHz: h.sampleRateHz, channels: h.channels.length === 2 ? 2 : 1 });
    onProgress({ playing: null, share: (round + 1) / MAX_ROUNDS });
    const isSteady = heard.every((h) => h.isSteady) && [...clocks.values()].every((c) => c?.isSteady);
    if (!isSteady) {
      lost++;
      // Its figures would be wrong: once more, as long as there is hope.
      if (lost <= MAX_LOST) {
        round--;
        continue;
      }
    }
    // Reading it first is sooner than playing one too many.
    reads.push(await Promise.race([desk.readRound(timed, heard), ended]));
  }
  return { reads, played, rates, lostRounds: lost };
}

/** @returns when it begins by the output's own clock, s */
function playSide(
  { context, readings }: OpenOutput,
  side: 0 | 1,
  pageS: number,
  levelDbfs: number,
  lengthS: number,
): number {
  const line = clockLine(readings);
  const wanted = line ? (pageS - line.offsetS) / line.rate : context.currentTime + (pageS - performance.now() / 1000);
  // On a whole sample, and not in the past.
  const atS = Math.ceil(Math.max(wanted, context.currentTime + 0.02) * context.sampleRate) / context.sampleRate;
  const samples = sweep(context.sampleRate, levelDbfs, lengthS);
  const buffer = context.createBuffer(2, samples.length, context.sampleRate);
  buffer.copyToChannel(samples, side);
  const source = context.createBufferSource();
  source.buffer = buffer;
  source.connect(context.destination);
  source.start(atS);
  return atS;
}

function processingOf(track: MediaStreamTrack): ScanInput['processing'] {
  const { echoCancellation, noiseSuppression, autoGainControl } = track.getSettings();
  return [
    ...(echoCancellation ? (['echo-cancel'] as const) : []),
    ...(noiseSuppression ? (['noise-suppression'] as const) : []),
    ...(autoGainControl ? (['gain-control'] as const) : []),
  ];
}
