/** Measures the file in a worker; beside it the page counts how long it was ever kept from its own work. */
async function measure(): Promise<{ seconds: number; blockedMs: number }> {
  const file = (document.getElementById('file') as HTMLInputElement).files![0]!;
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
  let blockedMs = 0;
  let last = performance.now();
  const timer = setInterval(() => {
    const now = performance.now();
    blockedMs = Math.max(blockedMs, now - last - BEAT_MS);
    last = now;
  }, BEAT_MS);
  const begun = performance.now();
  await new Promise((done) => {
    worker.onmessage = done;
    worker.postMessage(file);
  });
  clearInterval(timer);
  return { seconds: (performance.now() - begun) / 1000, blockedMs };
}
const BEAT_MS = 10;

declare global {
  interface Window {
    measure: typeof measure;
  }
}
window.measure = measure;
