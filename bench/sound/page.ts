import { besidePage } from '../beat.ts';

/** Measures the file in a worker; beside it the page counts how long it was ever kept from its own work. */
async function measure(): Promise<{ seconds: number; blockedMs: number }> {
  const file = (document.getElementById('file') as HTMLInputElement).files![0]!;
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
  const begun = performance.now();
  const { blockedMs } = await besidePage(
    () =>
      new Promise((done) => {
        worker.onmessage = done;
        worker.postMessage(file);
      }),
  );
  return { seconds: (performance.now() - begun) / 1000, blockedMs };
}

declare global {
  interface Window {
    measure: typeof measure;
  }
}
window.measure = measure;
