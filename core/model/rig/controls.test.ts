import { describe, expect, it } from 'vitest';
import { catalogue, controlsOf } from './index.ts';

const type = (id: string) => catalogue.find((t) => t.id === id)!;

describe('the controls of a box', () => {
  it('are each there once, in the table or with the box as a whole', () => {
    for (const t of catalogue) {
      const { table, general } = controlsOf(t);
      const inTable = table ? table.rows.flatMap((_, r) => table.columns.map((_, c) => table.at(r, c))) : [];
      const all = [...inTable.filter((s) => s !== null), ...general].map((s) => s.id);
      expect([...all].sort(), t.id).toEqual(t.settings.map((s) => s.id).sort());
    }
  });
  it('stand in rows by what they belong to, in columns by what they do', () => {
    const { table, general } = controlsOf(type('mixer-usb-10'));
    expect(table!.rows[0]).toBe('Channel 1');
    expect(table!.columns).toEqual([
      'gain',
      'delay',
      'mute',
      'low cut',
      'fader',
      'send 1',
      'send 2',
      'send 3',
      'input',
    ]);
    expect(table!.at(0, 5)!.id).toBe('strip-1-send-1');
    expect(table!.at(0, 8)).toBeNull();
    expect(general.map((s) => s.id)).toContain('main-level');
    expect(controlsOf(type('mixer-matrix')).table!.columns).toContain('to output 4');
    expect(controlsOf(type('loudspeakers-active')).table).toBeNull();
  });
});
