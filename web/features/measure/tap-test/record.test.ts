// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { recordInput } from './record.ts';

/** A browser with one input, whose recorder hands over a piece before it stops. */
function browser(refuses: string | null = null) {
  const asked: MediaStreamConstraints[] = [];
  const stopped = { tracks: 0, recorders: 0 };
  const track = { stop: () => stopped.tracks++, getSettings: () => ({ deviceId: 'line' }) };
  const stream = { getTracks: () => [track], getAudioTracks: () => [track] };
  class Recorder {
    state = 'inactive';
    ondataavailable: (e: { data: Blob }) => void = () => undefined;
    onstop: () => void = () => undefined;
    start() {
      this.state = 'recording';
    }
    stop() {
      this.state = 'inactive';
      stopped.recorders++;
      this.ondataavailable({ data: new Blob(['sound']) });
      this.onstop();
    }
  }
  vi.stubGlobal('MediaRecorder', Recorder);
  vi.stubGlobal('navigator', {
    mediaDevices: {
      getUserMedia: async (constraints: MediaStreamConstraints) => {
        asked.push(constraints);
        if (refuses) throw new DOMException('no', refuses);
        return stream;
      },
      enumerateDevices: async () => [{ kind: 'audioinput', deviceId: 'line', label: 'Line' }],
    },
  });
  return { asked, stopped };
}

beforeEach(() => void vi.unstubAllGlobals());

describe('a take straight from an input', () => {
  it('is recorded with nothing between: what browsers do for calls would take the tunes out', async () => {
    const { asked } = browser();
    await recordInput('Line');
    expect(asked[0]!.audio).toMatchObject({
      echoCancellation: false,
      noiseSuppression: false,
      autoGainControl: false,
    });
  });
  it('is a file once it has been stopped, and lets the input go; stopping twice does no harm', async () => {
    const { stopped } = browser();
    const recording = await recordInput('Line');
    let file: File | null = null;
    void recording.file.then((f) => {
      file = f;
    });
    await Promise.resolve();
    expect(file).toBeNull();
    recording.stop();
    recording.stop();
    const done = await recording.file;
    expect(done.name).toBe('Line.webm');
    expect(done.size).toBe(5);
    expect(stopped).toEqual({ tracks: 1, recorders: 1 });
  });
  it.each([
    ['NotAllowedError', /access was denied/],
    ['NotFoundError', /isn’t there/],
    ['NotReadableError', /another app may hold it/],
  ])('says what to do where the browser gives none: %s', async (name, says) => {
    browser(name);
    await expect(recordInput('Line')).rejects.toThrow(says);
  });
});
