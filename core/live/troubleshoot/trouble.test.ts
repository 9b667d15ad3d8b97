import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import {
  culprit,
  likelyComplaints,
  lineUp,
  lookBook,
  lookKeys,
  looksOf,
  oddsOf,
  SYMPTOMS,
  type Told,
  toldBy,
} from './index.ts';
import { answerOf, plant } from './trouble.testkit.ts';

const parsed = (rig: Rig): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const relay = parsed(boathouse);
const lineup = lineUp(relay);
const suspect = (id: string) => lineup.suspects.find((s) => s.fault.id === id)!;
const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;

describe('two hundred faults planted in the relay', () => {
  it('are found in five looks or fewer in the median and nine at most, in far fewer than by a fixed list', () => {
    const planted = plant(relay, lineup, 200, 7);
    const looks = planted.map((p) => p.looks);
    expect(median(looks)).toBeLessThanOrEqual(5);
    expect(Math.max(...looks)).toBeLessThanOrEqual(9);
    expect(median(planted.map((p) => p.byList))).toBeGreaterThan(3 * median(looks));
    // Of many kinds, with many complaints: not the same one over and over.
    expect(new Set(planted.map((p) => p.suspect.fault.kind)).size).toBeGreaterThan(10);
    expect(new Set(planted.map((p) => p.complaint.symptomId)).size).toBeGreaterThan(7);
  });
});

describe('the suspects of a rig', () => {
  it.each([clayHour, gliderCorner, mothNight, quayTalk, skerryNet])(
    'are each an edit that can be, told in words',
    (demo) => {
      const rig = parsed(demo);
      const all = lineUp(rig);
      expect(all.suspects.length).toBeGreaterThan(20);
      const ids = all.suspects.map((s) => s.fault.id);
      expect(new Set(ids).size).toBe(ids.length);
      const book = lookBook(rig, all);
      for (const { fault, changes } of all.suspects) {
        expect(`${fault.says} ${fault.mend} ${fault.shows}`).not.toMatch(/undefined|NaN|\[object/);
        if (fault.edit) expect(applyEdit(rig, fault.edit)).toMatchObject({ ok: true });
        expect(fault.weight).toBeGreaterThan(0);
        for (const key of changes.keys()) expect(textOf(book.say(key).asks)).not.toMatch(/undefined|NaN/);
      }
      const looks = plant(rig, all, 25, 3).map((p) => p.looks);
      expect(median(looks)).toBeLessThanOrEqual(5);
    },
  );
  it('reach as far as the model does: copy protection, phantom power, processing, a closed loop, a wrong choice', () => {
    const has = (id: string, key: string, answer: string) => {
      expect(suspect(id).changes.get(key)).toEqual([answer]);
    };
    has('set:console.copy-protection:on', lookKeys.picture('stream', 'couch-game'), 'nothing');
    has('set:call.processing:on', lookKeys.flag('ilse', 'cut-up'), 'yes');
    has('lead-out:wren-xlr', lookKeys.hear('backup', 'wren'), 'nothing');
    has('no-power:couch-strip', lookKeys.hear('room', 'couch-game'), 'nothing');
    has('set:mixer.sample-rate:44100', lookKeys.flag('backup', 'drop-outs'), 'yes');
    const side = suspect('one-side:phone-line:left');
    expect(side.changes.get(lookKeys.hear('backup', 'jingles'))).toEqual(['one side only']);
    // The cable crackles: what has its sound has its drop-outs, and what has not has none.
    const crackles = [...suspect('worn:phone-line').changes].filter(([k]) => k.startsWith('flag|'));
    expect(crackles.map(([k]) => k)).toContain(lookKeys.flag('backup', 'drop-outs'));
    expect(crackles.map(([k]) => k)).not.toContain(lookKeys.flag('couch-safety', 'drop-outs'));
  });
});

describe('the odds', () => {
  const told = (...complaints: Parameters<typeof toldBy>[1][]): Told[] => complaints.flatMap((c) => toldBy(relay, c));
  it('are one in all, and the worst of them first', () => {
    const odds = oddsOf(lineup, told({ symptomId: 'hum', listenerId: 'stream', sourceId: null }));
    expect(odds.reduce((sum, o) => sum + o.share, 0)).toBeCloseTo(1, 9);
    expect(odds.every((o, i) => i === 0 || o.share <= odds[i - 1]!.share)).toBe(true);
  });
  it('speak for the drawing where the rig does so as it is drawn', () => {
    const hears = oddsOf(lineup, told({ symptomId: 'unwanted', listenerId: 'ilse', sourceId: 'ilse' }));
    expect(hears[0]!.kind).toBe('drawn');
    expect(hears[0]!.share).toBeGreaterThan(0.5);
    const hums = oddsOf(lineup, told({ symptomId: 'hum', listenerId: 'stream', sourceId: null }));
    expect(hums[0]!.kind).toBe('drawn');
  });
  it('narrow with a second complaint and with what still works', () => {
    const silent = { symptomId: 'no-sound', sourceId: 'wren' } as const;
    const one = told({ ...silent, listenerId: 'backup' });
    const two = [...one, ...told({ ...silent, listenerId: 'players' })];
    const works: Told[] = [...one, { key: lookKeys.hear('players', 'wren'), answers: ['as always'] }];
    const of = (t: Told[], id: string) =>
      oddsOf(lineup, t).find((o) => o.kind === 'fault' && o.suspect.fault.id === id)!.share;
    expect(of(two, 'set:mixer.strip-1-mute:true')).toBeGreaterThan(of(one, 'set:mixer.strip-1-mute:true'));
    expect(of(works, 'lead-out:wren-xlr')).toBeLessThan(0.02);
    expect(of(works, 'lead-out:mixer-recorder')).toBeGreaterThan(of(one, 'lead-out:mixer-recorder'));
  });
  it('remember what it was at this desk', () => {
    const silent = told({ symptomId: 'no-sound', listenerId: 'backup', sourceId: 'wren' });
    const share = (before: ReadonlyMap<string, number>) =>
      oddsOf(lineup, silent, before).find((o) => o.kind === 'fault' && o.suspect.fault.id === 'lead-out:wren-xlr')!
        .share;
    const id = 'lead-out:wren-xlr';
    expect(share(new Map([[id, 1]]))).toBeGreaterThan(2 * share(new Map()));
    expect(share(new Map([[id, 3]]))).toBeGreaterThan(share(new Map([[id, 1]])));
  });
  it('own up when it is nothing that the model knows', () => {
    // Everything itself was looked at and found well.
    const looks = [...new Set(lineup.suspects.flatMap((s) => s.fault.looks.map((l) => l.id)))];
    const well = looks.map((id): Told => ({ key: lookKeys.look(id), answers: ['well'] }));
    const odds = oddsOf(lineup, [...told({ symptomId: 'no-sound', listenerId: 'backup', sourceId: 'wren' }), ...well]);
    expect(odds[0]!.kind).toBe('other');
    expect(culprit(odds)).toBeNull();
  });
  it('stay numbers whatever is told, and however much', () => {
    const all = [...new Set(lineup.suspects.flatMap((s) => [...s.changes.keys()]))].map(
      (key): Told => ({ key, answers: ['something that nobody expects'] }),
    );
    const odds = oddsOf(lineup, all);
    expect(odds.reduce((sum, o) => sum + o.share, 0)).toBeCloseTo(1, 9);
    expect(odds.every((o) => o.share >= 0)).toBe(true);
  });
  it('bear one answer given amiss', () => {
    const planted = suspect('set:mixer.strip-5-6-mute:true');
    const book = lookBook(relay, lineup);
    const all = told({ symptomId: 'no-sound', listenerId: 'backup', sourceId: 'couch-game' });
    all.push({ key: lookKeys.hear('room', 'couch-game'), answers: ['nothing'] });
    for (let n = 0; n < 12; n++) {
      const odds = oddsOf(lineup, all);
      const named = culprit(odds);
      if (named?.kind === 'fault' && named.suspect === planted) return;
      const [next] = looksOf(lineup, odds, all, book.secondsOf);
      all.push({ key: next!.key, answers: [answerOf(lineup, planted, next!.key)] });
    }
    expect.fail('it was not found in twelve looks');
  });
});

describe('a look', () => {
  it('is worth what it tells for its time, never asked twice, and asks of places that one can get at', () => {
    const silent = toldBy(relay, { symptomId: 'no-sound', listenerId: 'backup', sourceId: 'wren' });
    const book = lookBook(relay, lineup);
    const looks = looksOf(lineup, oddsOf(lineup, silent), silent, book.secondsOf);
    expect(looks.length).toBeGreaterThan(5);
    expect(looks.map((l) => l.key)).not.toContain(silent[0]!.key);
    for (const { key, bits, seconds, answers } of looks) {
      expect(bits).toBeGreaterThan(0);
      expect(bits).toBeLessThanOrEqual(Math.log2(answers.length) + 1e-9);
      expect(seconds).toBeGreaterThan(0);
      expect(key).not.toMatch(/tap\|(wren|couch|ilse)\/voice/);
    }
  });
  it('has a complaint for every symptom', () => {
    for (const { id, of } of SYMPTOMS) {
      const told = toldBy(relay, { symptomId: id, listenerId: 'stream', sourceId: of === 'source' ? 'wren' : null });
      expect(told.length).toBeGreaterThan(0);
      expect(told.every((t) => t.complained && t.answers.length > 0)).toBe(true);
    }
  });
});

describe('what is likely to be complained of', () => {
  it('is of this rig, each symptom of a source once, the likeliest first, and has a cause', () => {
    const likely = likelyComplaints(relay, lineup);
    expect(likely).toHaveLength(6);
    const keys = likely.map(({ complaint: c }) => `${c.symptomId} ${c.sourceId}`);
    expect(new Set(keys).size).toBe(6);
    expect(likely.every((l, i) => l.share > 0 && l.share < 1 && (i === 0 || l.share <= likely[i - 1]!.share))).toBe(
      true,
    );
    expect(keys).toContain('no-sound couch-game');
    for (const { complaint } of likely) {
      const odds = oddsOf(lineup, toldBy(relay, complaint));
      expect(odds[0]!.kind).toBe('fault');
    }
  });
});
