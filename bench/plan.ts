import { fortyByForty } from '../e2e/forty-by-forty.ts';
import { withProgram } from './browser.ts';
import type { Row } from './report.ts';

const TIMES = 15;
const REST_MS = 600;
const GOAL_MS = 50;
const KEYS = ['m', 'x', 'o'] as const;

/** From the key that says a want until it has been painted, in a plan of forty sources by forty listeners. */
export async function wants(): Promise<readonly Row[]> {
  const took = await withProgram(async (url, page) => {
    const id = crypto.randomUUID();
    const data = { id, document: fortyByForty() };
    await page.request.post(`${url}/api/rigs`, { headers: { origin: new URL(url).origin }, data });
    await page.goto(`${url}/rigs/${id}/plan`);
    await page.locator('[data-place="3 4"]').click();
    const all: number[] = [];
    for (let i = 0; i < TIMES; i++) {
      await page.waitForTimeout(REST_MS);
      all.push(
        await page.evaluate(
          async (key) => {
            const begun = performance.now();
            const event = { key, code: `Key${key.toUpperCase()}`, bubbles: true };
            document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', event));
            document.activeElement!.dispatchEvent(new KeyboardEvent('keyup', event));
            // A message after the frame's callbacks comes once it has been painted.
            await new Promise<void>((painted) =>
              requestAnimationFrame(() => {
                const { port1, port2 } = new MessageChannel();
                port1.onmessage = () => painted();
                port2.postMessage(null);
              }),
            );
            return performance.now() - begun;
          },
          KEYS[i % KEYS.length]!,
        ),
      );
    }
    return all;
  });
  const sorted = [...took].sort((a, b) => a - b);
  const median = sorted[TIMES >> 1]!;
  return [
    {
      what: 'a want in a plan of 40 by 40, from its key to the painted frame',
      ours: `${median.toFixed(0)} ms, the first ${took[0]!.toFixed(0)} ms, at most ${sorted.at(-1)!.toFixed(0)} ms`,
      other: '',
      ratio: null,
      goal: `${GOAL_MS} ms`,
      reached: median <= GOAL_MS,
    },
  ];
}
