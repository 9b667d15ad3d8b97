import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boathouse } from '#demo/boathouse.ts';
import { applyEdit, Edit, emptyRig, parseRig, parseRigText, RIG_VERSION, type Rig, Step } from './index.ts';
import { anEdit } from './rig.testkit.ts';

/** Documents as they were written by version 2, byte for byte. */
const KEPT = ['boathouse-v2.json', 'moth-night-v2.json'].map((name) => ({
  name,
  text: readFileSync(new URL(`./kept/${name}`, import.meta.url), 'utf8'),
}));
/** The same text in the terms of version 3: renamed as text, not as the migration does it. */
const renamed = (text: string): string =>
  text
    .replaceAll('"known":"seen"', '"known":"confirmed"')
    .replaceAll('"aside":[', '"dismissed":[')
    .replaceAll('"schemaVersion":2', `"schemaVersion":${RIG_VERSION}`);
/** What version 2 would have written for a value of today. */
const asWritten = <T>(value: T): unknown =>
  JSON.parse(
    JSON.stringify(value)
      .replaceAll('"known":"confirmed"', '"known":"seen"')
      .replaceAll('"kind":"dismiss","dismissal":', '"kind":"put-aside","aside":')
      .replaceAll('"kind":"reinstate"', '"kind":"take-up"'),
  );

describe('a document of version 2', () => {
  it.each(KEPT)('$name is read whole, in the terms of today', ({ text }) => {
    expect(text).toContain('"known":"seen"');
    const rig = parseRigText(text);
    expect(rig).toEqual(parseRigText(renamed(text)));
    expect(rig.schemaVersion).toBe(RIG_VERSION);
    expect(JSON.stringify(rig)).not.toMatch(/"seen"|"aside"/);
    expect(rig.cables.some((c) => c.known === 'confirmed')).toBe(true);
    // Written and read again, nothing changes.
    expect(parseRigText(JSON.stringify(rig))).toEqual(rig);
  });
  it('keeps what was ignored, with its reason, and may leave the list out', () => {
    const [{ text }] = KEPT as [(typeof KEPT)[number]];
    const { aside } = JSON.parse(text) as { aside: unknown[] };
    expect(aside.length).toBeGreaterThan(0);
    expect(parseRigText(text).dismissed).toEqual(aside);
    const { dismissed: _, ...bare } = emptyRig('Old');
    expect(parseRig({ ...bare, schemaVersion: 2 }).dismissed).toEqual([]);
  });
  it('does not rename what a person named so', () => {
    const words = { known: 'seen', aside: 'seen', seen: 'aside' };
    const { dismissed: _, ...bare } = { ...emptyRig('seen'), notes: '"known":"seen"', words };
    expect(parseRig({ ...bare, schemaVersion: 2 })).toMatchObject({ name: 'seen', notes: bare.notes, words });
  });
});

describe('edits that a browser kept before', () => {
  const rig: Rig = parseRig(boathouse);
  it('are read as what they did, in batches too, and do the same', () => {
    fc.assert(
      fc.property(fc.array(anEdit(rig), { minLength: 1, maxLength: 6 }), (edits) => {
        const batch: Edit = { kind: 'batch', edits };
        expect(Edit.parse(asWritten(batch))).toEqual(JSON.parse(JSON.stringify(batch)));
        const [first] = edits as [Edit];
        const done = applyEdit(rig, first);
        const again = applyEdit(rig, Edit.parse(asWritten(first)));
        expect(again.ok).toBe(done.ok);
        if (done.ok && again.ok) expect(again.rig).toEqual(done.rig);
      }),
    );
  });
  it('bring a whole earlier version back', () => {
    const [{ text }] = KEPT as [(typeof KEPT)[number]];
    const step = { label: 'back', origin: 'person', redo: { kind: 'replace', rig: JSON.parse(text) } };
    const read = Step.parse({ ...step, undo: { kind: 'rename', name: 'x' } });
    expect(read.redo).toMatchObject({ kind: 'replace', rig: { schemaVersion: RIG_VERSION } });
    expect(applyEdit(rig, read.redo)).toMatchObject({ ok: true, rig: { name: parseRigText(text).name } });
  });
});
