import type { FileRead } from './worker.ts';

/** Opens a file as Measure does, in a worker. */
function openFile(made: string, from: string): Promise<FileRead> {
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
  return new Promise<FileRead>((done, failed) => {
    worker.onmessage = ({ data }: MessageEvent<FileRead | { failed: string }>) =>
      'failed' in data ? failed(new Error(data.failed)) : done(data);
    worker.onerror = ({ message }) => failed(new Error(message));
    worker.postMessage([made, from]);
  }).finally(() => worker.terminate());
}

declare global {
  interface Window {
    openFile: typeof openFile;
  }
}
window.openFile = openFile;
