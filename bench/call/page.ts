import { Rnnoise } from '@shiguredo/rnnoise-wasm';
import type { TapReading } from '../../core/desk-tests/tunes/index.ts';
import { besidePage } from '../beat.ts';

/** What the browser does to a microphone before it sends it, and what the way loses. */
export interface Call {
  readonly noiseSuppression: boolean;
  readonly autoGainControl: boolean;
  readonly echoCancellation: boolean;
  /** Share of packets that do not arrive. */
  readonly loss: number;
  readonly seconds: number;
}

/** Both ends of a call in one page: the microphone's file at one, what comes out at the other. */
async function call({ loss, seconds, ...audio }: Call): Promise<{ rateHz: number; base64: string }> {
  const stream = await navigator.mediaDevices.getUserMedia({ audio: { ...audio, channelCount: 1 } });
  const near = new RTCPeerConnection();
  const far = new RTCPeerConnection({ encodedInsertableStreams: true } as RTCConfiguration);
  near.onicecandidate = (e) => void far.addIceCandidate(e.candidate ?? undefined);
  far.onicecandidate = (e) => void near.addIceCandidate(e.candidate ?? undefined);
  const coming = new Promise<MediaStreamTrack>((resolve) => {
    far.ontrack = ({ track, receiver }) => {
      losing(receiver, loss);
      resolve(track);
    };
  });
  for (const track of stream.getTracks()) near.addTrack(track, stream);
  await near.setLocalDescription(await near.createOffer());
  await far.setRemoteDescription(near.localDescription!);
  await far.setLocalDescription(await far.createAnswer());
  await near.setRemoteDescription(far.localDescription!);
  const heard = await recorded(await coming, seconds);
  for (const track of stream.getTracks()) track.stop();
  near.close();
  far.close();
  return heard;
}

interface Encoded {
  readonly readable: ReadableStream<unknown>;
  readonly writable: WritableStream<unknown>;
}

/** Packets that do not arrive, by chance. */
function losing(receiver: RTCRtpReceiver, loss: number): void {
  const { readable, writable } = (receiver as unknown as { createEncodedStreams(): Encoded }).createEncodedStreams();
  const drop = new TransformStream({
    transform(frame, controller) {
      if (Math.random() >= loss) controller.enqueue(frame);
    },
  });
  void readable.pipeThrough(drop).pipeTo(writable);
}

interface Sound {
  readonly sampleRate: number;
  readonly numberOfFrames: number;
  copyTo(into: Float32Array, options: { planeIndex: number; format: string }): void;
  close(): void;
}
declare const MediaStreamTrackProcessor: new (of: {
  track: MediaStreamTrack;
}) => { readonly readable: ReadableStream<Sound> };

async function recorded(track: MediaStreamTrack, seconds: number): Promise<{ rateHz: number; base64: string }> {
  // A track that no one listens to is not decoded.
  const ear = new Audio();
  ear.muted = true;
  ear.srcObject = new MediaStream([track]);
  void ear.play();
  const reader = new MediaStreamTrackProcessor({ track }).readable.getReader();
  const pieces: Float32Array[] = [];
  let [rateHz, frames] = [48_000, 0];
  while (frames < seconds * rateHz) {
    const { value, done } = await reader.read();
    if (done) break;
    const piece = new Float32Array(value.numberOfFrames);
    value.copyTo(piece, { planeIndex: 0, format: 'f32-planar' });
    rateHz = value.sampleRate;
    frames += piece.length;
    pieces.push(piece);
    value.close();
  }
  await reader.cancel();
  ear.srcObject = null;
  return { rateHz, base64: await base64Of(new Blob(pieces as BlobPart[])) };
}

const base64Of = (blob: Blob): Promise<string> =>
  new Promise((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve((reader.result as string).split(',')[1]!);
    reader.readAsDataURL(blob);
  });

const FULL_SCALE = 32_768;

/** A take behind a neural suppressor that lets voices pass. At 48 kHz. */
async function suppressed(url: string): Promise<string> {
  const x = new Float32Array(await (await fetch(url)).arrayBuffer());
  const suppressor = await Rnnoise.load();
  const state = suppressor.createDenoiseState();
  for (let at = 0; at + suppressor.frameSize <= x.length; at += suppressor.frameSize) {
    const frame = x.slice(at, at + suppressor.frameSize).map((v) => v * FULL_SCALE);
    state.processFrame(frame);
    x.set(
      frame.map((v) => v / FULL_SCALE),
      at,
    );
  }
  state.destroy();
  return base64Of(new Blob([x]));
}

/** Reads a take in one worker; beside it the page counts how long it was ever kept from its own work. */
async function read(
  url: string,
  rateHz: number,
  ids: number[],
): Promise<{ seconds: number; reading: TapReading; blockedMs: number }> {
  const samples = new Float32Array(await (await fetch(url)).arrayBuffer());
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
  const { done, blockedMs } = await besidePage(
    () =>
      new Promise<{ seconds: number; reading: TapReading }>((resolve) => {
        worker.onmessage = ({ data }) => resolve(data);
        worker.postMessage({ samples, rateHz, ids }, [samples.buffer]);
      }),
  );
  return { ...done, blockedMs };
}

declare global {
  interface Window {
    call: typeof call;
    read: typeof read;
    suppressed: typeof suppressed;
  }
}
window.call = call;
window.read = read;
window.suppressed = suppressed;
