// @vitest-environment happy-dom
import { fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { atMoment, parseRig, type Rig } from '#core/model/rig/index.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { lookedAt, selectDesk, selectMomentId, selectRig, undoStep } from '#web/shared/store/index.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { common, plan } from '#words/index.ts';
import { PlanScreen } from './index.ts';
import { freeId } from './MomentList.tsx';
import { sayWant } from './say.ts';

beforeEach(() => stubServer(noServer));
const skerry = (): Rig => parseRig(JSON.parse(JSON.stringify(skerryNet)));

function open(rig: Rig = demoRig()) {
  const { store } = show(<PlanScreen />, { rig });
  const now = () => selectRig(store.getState())!;
  const cell = (sourceId: string, listenerId: string, momentId: string | null = null) =>
    atMoment(now(), momentId).plan.find((c) => c.sourceId === sourceId && c.listenerId === listenerId);
  return { user: userEvent.setup(), store, now, cell };
}
const at = (name: RegExp) => screen.getByRole('gridcell', { name });
const card = () => screen.getByRole('complementary', { name: plan.card() });

describe('a want', () => {
  it('is said in one sentence', () => {
    const rig = demoRig();
    const say = (more: object) => sayWant(rig, { sourceId: 'couch-game', listenerId: 'stream', want: 'must', ...more });
    expect(say({})).toBe('“Couch game” at “Stream”: must arrive.');
    expect(say({ underVoiceDb: 10, ownTrack: true })).toBe(
      '“Couch game” at “Stream”: must arrive, 10 dB below “Wren, voice”, on its own track.',
    );
    expect(say({ want: 'may', inTimeWith: 'wren' })).toBe(
      '“Couch game” at “Stream”: may arrive, in sync with “Wren, voice”.',
    );
    expect(say({ keepTime: false })).toBe('“Couch game” at “Stream”: must arrive, at any time.');
    expect(say({ underVoiceDb: 0 })).toBe('“Couch game” at “Stream”: must arrive, as loud as “Wren, voice”.');
    expect(say({ want: 'must-not', underVoiceDb: 10 })).toBe('“Couch game” at “Stream”: must not arrive.');
  });
});

describe('the hearing plan', () => {
  it('is edited in place by keys: the want, how loud, when, alone; undone step by step', async () => {
    const { user, store, cell } = open();
    await user.click(at(/^Jingles? at |Ambrose, jingles at Ilse/));
    await user.keyboard('x');
    expect(cell('jingles', 'ilse')).toMatchObject({ want: 'must-not' });
    await user.keyboard('m');
    await user.keyboard('a');
    await user.keyboard('i');
    expect(cell('jingles', 'ilse')).toMatchObject({ want: 'must', ownTrack: true, keepTime: false });
    expect(within(card()).getByText(/at any time, on its own track\.$/)).toBeTruthy();
    await user.keyboard('ai');
    await user.type(within(card()).getByLabelText(plan.belowMainVoiceLabel()), '12{Enter}');
    expect(cell('jingles', 'ilse')).toEqual({
      sourceId: 'jingles',
      listenerId: 'ilse',
      want: 'must',
      underVoiceDb: 12,
    });
    await user.selectOptions(within(card()).getByLabelText(plan.inSyncWith()), 'wren');
    expect(cell('jingles', 'ilse')).toMatchObject({ inTimeWith: 'wren' });
    store.dispatch(undoStep());
    store.dispatch(undoStep());
    expect(cell('jingles', 'ilse')!.underVoiceDb).toBeUndefined();
  });
  it('says the same of every source at a listener, by one key', async () => {
    const { user, now } = open();
    await user.click(at(/^Couch game at Track 5/));
    await user.keyboard('{Shift>}m{/Shift}');
    const there = now().plan.filter((c) => c.listenerId === 'track-5');
    expect(there.map((c) => c.want)).toEqual(now().sources.map(() => 'must'));
  });
  it('refuses a level that is none, and keeps what was there', async () => {
    const { user, cell } = open();
    await user.click(at(/^Couch game at Stream/));
    const level = within(card()).getByLabelText(plan.belowMainVoiceLabel());
    await user.type(level, 'loud{Enter}');
    expect(level.getAttribute('aria-invalid')).toBe('true');
    expect(cell('couch-game', 'stream')!.underVoiceDb).toBeUndefined();
  });
  it('is taken whole from a usual purpose, in one step', async () => {
    const { user, store, now } = open();
    const before = now().plan;
    await user.selectOptions(screen.getByLabelText(plan.planToStartFrom()), 'two-players');
    await user.click(screen.getByRole('button', { name: /^Use this plan \(\d+ requirements\)/ }));
    expect(now().plan.find((c) => c.sourceId === 'couch-game' && c.listenerId === 'stream')!.underVoiceDb).toBe(10);
    expect(now().plan.some((c) => c.listenerId === 'track-2')).toBe(false);
    store.dispatch(undoStep());
    expect(now().plan).toEqual(before);
  });
});

describe('moments', () => {
  it('are added, named, looked at and taken out', async () => {
    const { user, store, now } = open();
    await user.type(screen.getByLabelText(plan.newMomentName()), 'Break at noon');
    await user.click(screen.getByRole('button', { name: plan.addMoment() }));
    expect(now().moments).toEqual([{ id: 'break-at-noon', name: 'Break at noon', settings: [], plan: [] }]);
    // What one looks at stays what it was.
    expect(selectMomentId(store.getState())).toBeNull();
    const name = screen.getByLabelText(plan.nameOf({ moment: 'Break at noon' }));
    fireEvent.change(name, { target: { value: 'Tea' } });
    fireEvent.blur(name);
    expect(now().moments[0]!.name).toBe('Tea');
    await user.click(screen.getByRole('button', { name: common.remove() }));
    expect(now().moments).toEqual([]);
    expect(selectMomentId(store.getState())).toBeNull();
    expect(freeId({ ...skerry() }, 'Send A')).toBe('send-a-2');
    expect(freeId(skerry(), '¿?')).toBe('moment');
  });
  it('keep to themselves what is wanted while they are looked at, and say what is heard otherwise', async () => {
    const { user, store, cell } = open(skerry());
    await user.click(screen.getAllByRole('button', { name: plan.switchToIt() })[1]!);
    expect(
      screen.getByText('“Channel A”: no longer at “Operator’s ears”, “Log, radios”, “Members’ stream”'),
    ).toBeTruthy();
    await user.click(at(/^Channel B at Operator/));
    await user.keyboard('o');
    expect(cell('boat-b', 'operator')!.want).toBe('must');
    expect(cell('boat-b', 'operator', 'send-a')!.want).toBe('may');
    expect(at(/^Channel B at Operator.*may, in this moment/)).toBeTruthy();
    expect(selectDesk(store.getState()).history!.past.at(-1)!.label).toMatch(/^Send A: Operator’s ears, Channel B/);
    store.dispatch(lookedAt('never-there'));
    expect(selectMomentId(store.getState())).toBeNull();
  });
});

describe('what the session asks for', () => {
  it('is said line by line and held against the rig', async () => {
    const { user, now } = open();
    await user.selectOptions(screen.getByLabelText(plan.videoFormat()), '3840x2160@120');
    await user.selectOptions(screen.getByLabelText(plan.direction()), 'yes');
    await user.type(screen.getByLabelText(plan.distance()), '7{Enter}');
    expect(now().session).toMatchObject({ pictureMode: '3840x2160@120', twoWay: true, distanceM: 7 });
    const unmet = screen.getByRole('list', { name: plan.notMet() });
    expect(within(unmet).getByText(/“Game console” sends .*session/)).toBeTruthy();
    expect(within(unmet).getAllByRole('link', { name: plan.howToFix() }).length).toBeGreaterThan(1);
    await user.selectOptions(screen.getByLabelText(plan.videoFormat()), '');
    expect(now().session.pictureMode).toBeUndefined();
  });
});

describe('the far side', () => {
  it('answers one question each, is joined by somebody more, and gets a spare seat', async () => {
    const { user, now } = open();
    await user.selectOptions(
      screen.getByLabelText(plan.whatTheyListenBy({ name: 'Ilse, on the call' })),
      'conference-loudspeaker',
    );
    expect(now().devices.find((d) => d.id === 'ilse-headset')!.typeId).toBe('conference-loudspeaker');
    await user.type(screen.getByLabelText(plan.guestName()), 'Oda{Enter}');
    expect(now().listeners.some((l) => l.name === 'Oda, headphones')).toBe(true);
    await user.click(screen.getByRole('button', { name: plan.testDevice() }));
    expect(now().listeners.some((l) => l.id === 'spare-seat')).toBe(true);
    expect(screen.getByRole('button', { name: plan.testDevice() }).getAttribute('aria-disabled')).toBe('true');
    expect(screen.getAllByRole('button', { name: plan.downloadSheet() })).toHaveLength(2);
  });
});
