import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { readDesk } from '#core/intake/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { figuresFor } from '#core/routing/variants/index.ts';
import { evaluate, evaluationAt, rolesOf } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { MEASURE_IDS, MEASURES, type Option, OWN, optionsFor, scoresOf, USUAL_WEIGHTS } from './index.ts';

const parsed = (rig: Rig): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const relay = parsed(boathouse);
const options = optionsFor(relay);
const way = (id: string): Option => options.find((o) => o.kind.id === id)!;

describe('ways to build it', () => {
  it('are a dozen and more, each a rig that holds together, in figures that are figures', () => {
    expect(options.length).toBeGreaterThanOrEqual(12);
    expect(new Set(options.map((o) => o.kind.id)).size).toBe(options.length);
    for (const option of options) {
      expect(parseRig(JSON.parse(JSON.stringify(option.rig)))).toEqual(option.rig);
      for (const id of MEASURE_IDS) expect(Number.isFinite(MEASURES[id](option)), `${option.kind.id} ${id}`).toBe(true);
      expect(option.cannot.join()).not.toMatch(/undefined|no lead|:/);
      expect(option.figures.wanted).toBeGreaterThan(0);
    }
  });
  it.each([clayHour, gliderCorner, mothNight])('are found for other desks as well', (demo) => {
    const found = optionsFor(parsed(demo));
    // Without a console there are fewer: how its sound comes in is no question.
    expect(found.length).toBe(11);
    expect(found.map((o) => o.kind.name).join()).not.toMatch(/HDMI|console|game|loudspeaker/);
    expect(found.some((o) => o.figures.heard > 0)).toBe(true);
    expect(found.some((o) => o.unbeaten)).toBe(true);
  });
  it('are judged by the model: what practitioners know of them comes out', () => {
    // Sends for everybody bring all of the plan; a matrix too, with more conversions.
    expect(way('digital').cannot).toEqual([]);
    expect(way('matrix').cannot).toEqual([]);
    expect(way('matrix').figures.conversions).toBeGreaterThan(way('digital').figures.conversions);
    // Over one main mix the guest hears themselves; by hand almost nothing is heard at once.
    expect(way('analogue-interface').cannot.map(textOf)).toContain('plan.atButMustNot(Ilse, on the call, Ilse’s ears)');
    expect(way('replug').cannot.length).toBeGreaterThan(5);
    expect(way('small-capture').cannot.map(textOf)).toContain('plan.noAt(Couch game, Players’ ears)');
    // Fewest devices straight in; an extractor is one more than the screen's jack, which hums by its ground.
    expect(way('software-usb').figures.boxes).toBeLessThan(way('small-extractor').figures.boxes);
    expect(way('small-jack').figures.boxes).toBe(way('small-extractor').figures.boxes - 1);
    expect(way('small-jack').rig.devices.some((d) => d.typeId === 'hdmi-extractor')).toBe(false);
    // One open microphone for everything: nothing can be balanced afterwards.
    expect(way('open-microphone').apart).toBeLessThan(way('digital').apart);
    expect(way('digital').apart).toBe(way('digital').together);
    // A USB microphone through a mixer is noisier than an XLR one on the same mixer.
    expect(way('small-usb-microphone').figures.leastSnrDb!).toBeLessThan(way('small-extractor').figures.leastSnrDb!);
  });
  it('cost what is not owned yet', () => {
    const bare: Rig = { ...relay, devices: relay.devices.map((d) => (d.id === 'mixer' ? { ...d, toGet: true } : d)) };
    const again = optionsFor(bare).find((o) => o.kind.id === 'digital')!;
    expect(again.toBuyEur[0] - way('digital').toBuyEur[0]).toBe(350);
    expect(again.toBuyEur[1] - way('digital').toBuyEur[1]).toBe(700);
    expect(way('small-jack').toBuyEur[0]).toBeLessThan(way('small-jack').figures.priceEur[0]);
  });
  it('begin with one’s own desk, judged by what it is', () => {
    const [own] = options;
    expect(own!.kind.id).toBe(OWN);
    expect(own!.rig).toBe(relay);
    expect(own!.toBuyEur).toEqual([0, 0]);
    expect(own!.figures).toEqual(figuresFor(relay));
    const roles = rolesOf(relay);
    const whole = new Set(relay.listeners.filter((l) => roles.listener(l) !== 'track').map((l) => l.id));
    const wrong = evaluate(relay).pairs.filter(
      (p) => whole.has(p.listenerId) && ['missing', 'unwanted'].includes(p.verdict.word),
    );
    expect(wrong.length).toBeGreaterThan(0);
    expect(own!.cannot).toHaveLength(wrong.length);
  });
  it('keep the names, the plan and the moments of the desk', () => {
    const own = parsed(clayHour);
    for (const { kind, rig, cannot } of optionsFor(own).slice(1)) {
      expect(parseRig(JSON.parse(JSON.stringify(rig)))).toEqual(rig);
      expect(rig.moments.map((m) => m.name)).toEqual(own.moments.map((m) => m.name));
      expect(rig.session.plainMoment).toBe(own.session.plainMoment);
      expect(new Set(rig.devices.map((d) => d.name)).size).toBe(rig.devices.length);
      expect(rig.devices.map((d) => d.name)).toEqual(
        expect.arrayContaining(['Laptop', 'Call with the pupils', 'Teacher']),
      );
      const byName = (r: Rig, id: string) => r.sources.find((s) => s.id === id)!.name;
      const heardBy = (r: Rig, id: string) => r.listeners.find((l) => l.id === id)!.name;
      // Whoever is in it is called as on one's own desk, and every want is one of one's own.
      for (const s of rig.sources)
        expect(
          own.sources.map((o) => o.name),
          kind.id,
        ).toContain(s.name);
      for (const momentId of [null, ...rig.moments.map((m) => m.id)]) {
        const mine = new Map(
          evaluationAt(own, momentId).pairs.map((p) => [`${byName(own, p.sourceId)} ${heardBy(own, p.listenerId)}`, p]),
        );
        for (const p of evaluationAt(rig, momentId).pairs) {
          const pair = mine.get(`${byName(rig, p.sourceId)} ${heardBy(rig, p.listenerId)}`);
          if (p.want) expect(p.want, `${kind.id} ${momentId}`).toBe(pair!.want);
          if (p.verdict.word === 'missing') expect(cannot.join()).toContain(byName(rig, p.sourceId));
        }
      }
    }
  });
  it('press in a moment what its wants need, and say in which one a want does not come true', () => {
    const found = optionsFor(parsed(clayHour));
    const digital = found.find((o) => o.kind.id === 'digital')!;
    expect(digital.cannot).toEqual([]);
    for (const m of digital.rig.moments) {
      expect(m.settings.length).toBeGreaterThan(0);
      const wrong = evaluationAt(digital.rig, m.id).pairs.filter((p) =>
        ['missing', 'unwanted'].includes(p.verdict.word),
      );
      expect(wrong).toEqual([]);
    }
    expect(found.find((o) => o.kind.id === 'software-usb')!.cannot.map(textOf)).toEqual([
      'plan.in(plan.atButMustNot(Music, Pupils’ ears), list.and(Questions))',
    ]);
  });
  it('tell of everybody who has no place in them', () => {
    const crowd = readDesk('me, anna, bert > 3 xlr mics > 4 channel mixer > pc > streaming app; headphones > mixer')
      .rig!;
    const voices = crowd.sources.length;
    expect(voices).toBe(3);
    for (const { kind, cannot, rig } of optionsFor(crowd).slice(1)) {
      const missing = crowd.sources.filter((s) => !rig.sources.some((r) => r.name === s.name));
      for (const s of missing) expect(cannot.map(textOf), kind.id).toContain(`plan.isNotInIt(${s.name})`);
      expect(rig.sources.length + missing.length).toBeGreaterThanOrEqual(voices);
    }
  });
  it('are marked where no other is at least as good in everything', () => {
    const beats = (a: Option, b: Option) =>
      MEASURE_IDS.every((id) => MEASURES[id](a) <= MEASURES[id](b) + 1e-9) &&
      MEASURE_IDS.some((id) => MEASURES[id](a) < MEASURES[id](b) - 1e-9);
    for (const o of options) expect(o.unbeaten).toBe(!options.some((other) => beats(other, o)));
  });
  it('come out by one’s own weights', () => {
    const none = Object.fromEntries(MEASURE_IDS.map((id) => [id, 0])) as Record<(typeof MEASURE_IDS)[number], number>;
    expect(scoresOf(options, none)).toEqual(options.map(() => 0));
    for (const id of MEASURE_IDS) {
      const scores = scoresOf(options, { ...none, [id]: 3 });
      const best = options[scores.indexOf(Math.max(...scores))]!;
      expect(MEASURES[id](best)).toBe(Math.min(...options.map(MEASURES[id])));
    }
    for (const score of scoresOf(options, USUAL_WEIGHTS)) {
      expect(score).toBeGreaterThanOrEqual(0);
      expect(score).toBeLessThanOrEqual(1);
    }
  });
});
