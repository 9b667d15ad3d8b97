import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { commit, startHistory, undo } from '#core/model/rig/index.ts';
import { demoRig } from '#web/web.testkit.tsx';
import { readDraft, readNotesDraft, writeDraft, writeNotesDraft } from './drafts.ts';

const RIG = '11111111-1111-4111-8111-111111111111';
const TAKE = '22222222-2222-4222-8222-222222222222';
let kept: Map<string, string>;
let room = Number.POSITIVE_INFINITY;
beforeEach(() => {
  kept = new Map();
  room = Number.POSITIVE_INFINITY;
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => {
      if (v.length > room) throw new DOMException('full', 'QuotaExceededError');
      kept.set(k, v);
    },
    removeItem: (k: string) => void kept.delete(k),
  });
});
afterEach(() => vi.unstubAllGlobals());

const history = () => {
  const done = commit(startHistory(demoRig()), { kind: 'rename', name: 'Relay, second night' }, 'name', 'person');
  if (!done.ok) throw new Error('refused');
  return done.history;
};

describe('the rig in hand', () => {
  it('comes back as it was, with its steps', () => {
    const draft = { revision: 3, saved: false, history: history() };
    writeDraft(RIG, draft);
    expect(readDraft(RIG)).toEqual(JSON.parse(JSON.stringify(draft)));
  });
  it('comes back with its steps from the version before', () => {
    const [cable] = demoRig().cables;
    const aside = { id: 'rule:x', reason: 'known', at: '2026-01-02T03:04:05Z' };
    const { dismissed, ...rig } = demoRig();
    const step = {
      label: 'ignored',
      origin: 'person',
      redo: {
        kind: 'batch',
        edits: [
          { kind: 'put-aside', aside },
          { kind: 'plug', cable: { ...cable, known: 'seen' } },
        ],
      },
      undo: { kind: 'take-up', findingId: aside.id },
    };
    const kept2 = { ...rig, aside: [...dismissed, aside], schemaVersion: 2 };
    kept.set(`mellow.rig.${RIG}`, JSON.stringify({ revision: 3, saved: false, rig: kept2, past: [step], future: [] }));
    const draft = readDraft(RIG)!;
    expect(draft.history.rig.dismissed).toContainEqual(aside);
    const back = undo(draft.history);
    expect(back.ok && back.history.rig.dismissed).toEqual(dismissed);
    expect(draft.history.past[0]!.redo).toMatchObject({
      edits: [
        { kind: 'dismiss', dismissal: aside },
        { kind: 'plug', cable: { known: 'confirmed' } },
      ],
    });
  });
  it('is kept without its steps where there is no room for them', () => {
    const draft = { revision: 3, saved: true, history: history() };
    const bare = JSON.stringify({ revision: 3, saved: true, rig: draft.history.rig, past: [], future: [] });
    room = bare.length;
    writeDraft(RIG, draft);
    expect(readDraft(RIG)!.history).toMatchObject({ past: [], future: [] });
    expect(readDraft(RIG)!.history.rig).toEqual(JSON.parse(JSON.stringify(draft.history.rig)));
  });
  it('is nothing where none is kept, or what is kept cannot be read', () => {
    expect(readDraft(RIG)).toBeNull();
    kept.set(`mellow.rig.${RIG}`, '{"revision":1');
    expect(readDraft(RIG)).toBeNull();
    kept.set(`mellow.rig.${RIG}`, '{"revision":1,"saved":true,"rig":{},"past":[],"future":[]}');
    expect(readDraft(RIG)).toBeNull();
  });
});

describe('marks on a take', () => {
  const draft = { revision: 2, notes: { flashes: [], claps: [], frameMs: 20, speaksOf: null } };
  it('are gone once the server has them', () => {
    writeNotesDraft(TAKE, draft);
    expect(readNotesDraft(TAKE)).toEqual(draft);
    writeNotesDraft(TAKE, null);
    expect(kept.size).toBe(0);
    expect(readNotesDraft(TAKE)).toBeNull();
  });
  it('stay on the page where there is no room, and nothing breaks', () => {
    room = 1;
    expect(() => writeNotesDraft(TAKE, draft)).not.toThrow();
    kept.set(`mellow.take.${TAKE}`, '{"revision":"two"}');
    expect(readNotesDraft(TAKE)).toBeNull();
  });
});
