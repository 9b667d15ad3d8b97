// @vitest-environment happy-dom
import { act, screen } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { atMoment, parseRig, type Rig } from '#core/model/rig/index.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { applyHere, applyStep, lookedAt, selectRig } from '#web/shared/store/index.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { MomentNote } from './index.ts';

beforeEach(() => stubServer(noServer));
const skerry = (): Rig => parseRig(JSON.parse(JSON.stringify(skerryNet)));

describe('what is said of the moment where one edits', () => {
  it('is nothing where there is one moment only', () => {
    show(<MomentNote edits="into-the-moment" />, { rig: demoRig() });
    expect(screen.queryByRole('note')).toBeNull();
  });
  it('names the one that is shown, and is true of what an edit does', () => {
    const rig = skerry();
    const moment = rig.moments[0]!;
    const { store } = show(<MomentNote edits="into-the-moment" />, { rig });
    const note = () => screen.getByRole('note').textContent!;
    expect(note()).toContain(rig.session.plainMoment ?? 'As set');
    expect(note()).toContain('every moment that doesn’t have its own');
    act(() => void store.dispatch(lookedAt(moment.id)));
    expect(note()).toContain(moment.name);
    expect(note()).toContain('this moment only');
    const [source, listener] = [rig.sources[0]!, rig.listeners[0]!];
    const ids = { sourceId: source.id, listenerId: listener.id };
    const want = (r: Rig, id: string | null) =>
      atMoment(r, id).plan.find((c) => c.sourceId === ids.sourceId && c.listenerId === ids.listenerId)?.want;
    const before = want(rig, null);
    const next = want(rig, moment.id) === 'must-not' ? 'may' : 'must-not';
    act(() => void store.dispatch(applyHere({ kind: 'set-plan', ...ids, cell: { ...ids, want: next } }, 'want')));
    const now = selectRig(store.getState())!;
    expect([want(now, null), want(now, moment.id)]).toEqual([before, next]);
  });
  it('says of devices and cables that they are the same in all, and they are', () => {
    const rig = skerry();
    const { store } = show(<MomentNote edits="into-all" />, { rig });
    act(() => void store.dispatch(lookedAt(rig.moments[0]!.id)));
    expect(screen.getByRole('note').textContent).toContain('the same in every moment');
    const device = rig.devices[0]!;
    act(() => void store.dispatch(applyStep({ kind: 'set-device', device: { ...device, name: 'Spare' } }, 'name')));
    const now = selectRig(store.getState())!;
    for (const id of [null, ...now.moments.map((m) => m.id)]) expect(atMoment(now, id).devices[0]!.name).toBe('Spare');
  });
});
