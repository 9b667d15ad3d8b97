import { boathouse } from '#demo/boathouse.ts';
import { type Figures, hold, idOf, makeDesk } from './desk.ts';

const WINDOWS = 10;

/** Ten windows that save as fast as they are answered; then lists of thousands. */
export async function crowd(_seed: number, untilMs: number, saves: number): Promise<Figures> {
  const desk = await makeDesk();
  try {
    await desk.start();
    let [done, half] = [0, 0];
    const beganMs = Date.now();
    await Promise.all(
      Array.from({ length: WINDOWS }, async (_, w) => {
        const id = idOf(0x10, w);
        await desk.ask('POST', '/api/rigs', { id, document: boathouse });
        for (let n = 1; n <= saves / WINDOWS && Date.now() < untilMs; n++) {
          const { status } = await desk.ask(
            'PUT',
            `/api/rigs/${id}`,
            { ...boathouse, name: `n${n}` },
            { 'If-Match': `"${n}"` },
          );
          hold(status === 200, `Save ${n} of window ${w} answered ${status}`);
          if (++done === saves / 2) half = desk.memoryMb();
        }
      }),
    );
    const seconds = (Date.now() - beganMs) / 1000;
    const end = desk.memoryMb();
    if (half > 0)
      hold(end < 1.25 * half, `Memory grew from ${half.toFixed(0)} to ${end.toFixed(0)} MB over the last half`);
    return {
      saves: done,
      'a second': Math.round(done / seconds),
      'MB at half': Math.round(half),
      'MB at the end': Math.round(end),
    };
  } finally {
    await desk.dispose();
  }
}
