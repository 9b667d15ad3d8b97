import { spawnSync } from 'node:child_process';
import { rmSync, writeFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const ASKS = [
  "export const isMixer = (device: { typeId: string }) => device.typeId === 'mixer-usb-10';",
  "export const isUsb = (port: { id: string }) => port.id.startsWith('usb');",
  'export const isCall = (device: { name: string }) => /call/.test(device.name);',
  "export const isRadio = (type: { family: string }) => type.family !== 'two-way';",
];
const FINE = [
  "export const isFar = (port: { does?: string }) => port.does === 'far-side';",
  'export const isSame = (a: { id: string }, b: { id: string }) => a.id === b.id;',
];

describe('the rule that nobody asks for kinds', () => {
  it('fires in the core at what asks for a type, an id, a name or a shelf, and at nothing else', () => {
    const file = `core/rules/tried-${process.pid}.ts`;
    writeFileSync(file, `${[...ASKS, ...FINE].join('\n')}\n`);
    try {
      const { stdout, stderr } = spawnSync('npx', ['biome', 'lint', '--max-diagnostics=50', file], {
        encoding: 'utf8',
      });
      const lines = [...(stdout + stderr).matchAll(/tried-\d+\.ts:(\d+):\d+ plugin/g)].map((m) => Number(m[1]));
      expect([...new Set(lines)].sort()).toEqual(ASKS.map((_, i) => i + 1));
    } finally {
      rmSync(file);
    }
  });
});
