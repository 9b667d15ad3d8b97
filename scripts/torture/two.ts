import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Figures, hold, idOf, makeDesk } from './desk.ts';

/** A second server on a data folder is turned away while the first one takes uploads in; a folder of someone else is left alone. */
export async function two(): Promise<Figures> {
  const desk = await makeDesk();
  const figures = { 'second starts turned away': 0, 'takes kept meanwhile': 0 };
  try {
    await desk.start();
    let going = true;
    const uploads = (async () => {
      for (let n = 0; going; n++) {
        const { status } = await desk.ask(
          'PUT',
          `/api/takes/${idOf(0x20, n)}?name=t.wav`,
          new Uint8Array(300_000).fill(n),
        );
        hold(status === 201, `An upload answered ${status}`);
        figures['takes kept meanwhile']++;
      }
    })();
    for (let n = 0; n < 5; n++) {
      const { code, said } = await secondStart(desk.data, {});
      hold(
        code === 1 && /open in another Mellow Tap \(process \d+, http/.test(said),
        `A second server ended with ${code}: ${said}`,
      );
      figures['second starts turned away']++;
    }
    const demo = await secondStart(desk.data, { MELLOW_SEED: 'demo' });
    hold(demo.code === 0 && demo.said.includes(desk.base), `The demo, started twice, said: ${demo.said}`);
    going = false;
    await uploads;
    const list = (await desk.ask('GET', '/api/takes')).json as { missing?: true }[];
    hold(
      list.length === figures['takes kept meanwhile'] && list.every((t) => !t.missing),
      'A take was lost to a second start',
    );
  } finally {
    await desk.dispose();
  }
  await foreignFolder();
  return figures;
}

const secondStart = async (data: string, env: Record<string, string>) => {
  const other = await makeDesk(join(data, '..'));
  return other.tryStart(env);
};

async function foreignFolder(): Promise<void> {
  const desk = await makeDesk();
  try {
    for (const folder of ['photos', 'takes', 'archives']) {
      mkdirSync(join(desk.data, folder), { recursive: true });
      writeFileSync(join(desk.data, folder, 'f'.repeat(64)), 'mine');
    }
    const before = readdirSync(desk.data, { recursive: true }).sort();
    const { code, said } = await desk.tryStart();
    hold(code === 1 && /holds files that are not Mellow Tap’s/.test(said), `A foreign folder: ${code} ${said}`);
    hold(
      JSON.stringify(readdirSync(desk.data, { recursive: true }).sort()) === JSON.stringify(before),
      'A foreign folder was touched',
    );
  } finally {
    await desk.dispose();
  }
}
