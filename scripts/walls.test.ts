import { spawnSync } from 'node:child_process';
import { rmSync, writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import { describe, expect, it } from 'vitest';

/** Each breaks one wall: the file that would, and its import. */
const BREAKS = [
  ['core/model/units', '#core/signal/index.ts', 'not-in-allowed'],
  ['core/rules', '#core/live/troubleshoot/index.ts', 'not-in-allowed'],
  ['core/audio/measure', 'node:fs', 'core-is-pure'],
  ['web/features/design/route', '#web/features/live/log/index.ts', 'features-apart'],
  ['web/features/live/log', '#core/live/run/journal.ts', 'by-its-index'],
  ['web/shared/charts', '#web/shared/store/index.ts', 'not-in-allowed'],
  ['server/database', '#server/rigs/service.ts', 'not-in-allowed'],
] as const;

describe('the walls between folders', () => {
  it('fire at what breaks them, and at nothing else', () => {
    const name = (folder: string, n: number | string) => `${folder}/tried-${process.pid}-${n}.ts`;
    const files = BREAKS.map(([folder], i) => name(folder, i));
    const circle = [name('core/base/text', 'a'), name('core/base/text', 'b')] as const;
    const write = (file: string, target: string) => writeFileSync(file, `import '${target}';\n`);
    try {
      for (const [i, [, target]] of BREAKS.entries()) write(files[i]!, target);
      write(circle[0], `./${basename(circle[1])}`);
      write(circle[1], `./${basename(circle[0])}`);
      const { stdout } = spawnSync('npx', ['depcruise', '--output-type', 'json', ...files, ...circle], {
        encoding: 'utf8',
        maxBuffer: 2 ** 28,
      });
      const { violations } = (
        JSON.parse(stdout) as { summary: { violations: { from: string; rule: { name: string } }[] } }
      ).summary;
      const expected = BREAKS.map(([, , rule], i) => `${files[i]}: ${rule}`);
      expect(violations.map((v) => `${v.from}: ${v.rule.name}`).sort()).toEqual(
        [...expected, `${circle[0]}: no-circle`].sort(),
      );
    } finally {
      for (const file of [...files, ...circle]) rmSync(file, { force: true });
    }
  });
});
