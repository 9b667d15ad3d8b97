import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Said, textOf } from '#core/base/said/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { check } from '#core/rules/index.ts';
import { evaluate, evaluationAt } from '#core/signal/index.ts';
import { changeOf, readDesk, sayMade } from './index.ts';

const STREAMER =
  '2 consoles > hdmi switch > capture card > pc > streaming app; me > xlr mic > small usb mixer > pc; phone > mixer; friend > voice chat > pc; usb headset > pc';
const streamer = readDesk(STREAMER);
const rig = streamer.rig!;
const says = (read = streamer) => read.made.map((m) => textOf(sayMade(m)));
const decision = (id: string, read = streamer) => read.decisions.find((d) => d.id.startsWith(id));
const at = (now: Rig, sourceId: string, listenerId: string) =>
  evaluate(now).pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!;

describe('a desk read from plain words', () => {
  it('is connected within the computer, a sentence each', () => {
    expect(says()).toEqual(
      expect.arrayContaining([
        'intake.wears(yes, You, USB headset)',
        'intake.usesForBoth(Voice chat, USB headset)',
        'intake.withNote(intake.takesAsInput(Streaming app, Capture card, 1), intake.videoAudioOnTrack(track 2))',
        'intake.withNote(intake.takesAsInput(Streaming app, Small USB mixer, 2), intake.onOwnTrack(track 3))',
      ]),
    );
    expect(new Set(streamer.made.map((m) => m.id)).size).toBe(streamer.made.length);
  });
  it('has everybody hear what they should, each console in a moment of its own', () => {
    const wrong = evaluate(rig).pairs.filter((p) => p.want === 'must' && p.ways.length === 0);
    expect(wrong).toEqual([]);
    expect(rig.session.plainMoment).toBe('Console 1');
    expect(rig.moments.map((m) => m.name)).toEqual(['Console 2']);
    const then = evaluationAt(rig, rig.moments[0]!.id).pairs;
    expect(then.filter((p) => p.want === 'must' && p.ways.length === 0)).toEqual([]);
    expect(then.find((p) => p.sourceId === 'console-2' && p.listenerId === 'streaming-app-stream')).toMatchObject({
      want: 'must',
    });
  });
  it('asks what only a person can tell, and does as it is answered', () => {
    expect(decision('stream-hears')).toMatchObject({
      asks: { code: 'intake.shouldStreamHear', params: { who: 'Friend' } },
      taken: 'yes',
      answered: false,
    });
    expect(at(rig, 'friend', 'streaming-app-stream').ways.length).toBeGreaterThan(0);
    const alone = readDesk(STREAMER, { answers: new Map([['stream-hears:voice-chat', 'no']]) });
    expect(decision('stream-hears', alone)).toMatchObject({ taken: 'no', answered: true });
    expect(at(alone.rig!, 'friend', 'streaming-app-stream')).toMatchObject({ want: 'must-not', ways: [] });
    const mixer = readDesk(STREAMER, { answers: new Map([['call-mic:voice-chat', 'small-usb-mixer']]) });
    expect(mixer.rig!.cables.find((c) => c.to.portId === 'near-microphone')?.from.portId).toBe(
      rig.cables
        .find((c) => c.from.deviceId === 'small-usb-mixer' && c.to.deviceId === 'pc')!
        .to.portId.replace('usb', 'from-usb'),
    );
    const room = readDesk(
      'console > splitter > tv; splitter > capture card > pc; usb headset > pc; friend on voice chat',
    );
    expect(decision('hear:', room)!.options.map((o) => o.id)).toEqual(['room', 'computer', 'monitor', 'not']);
  });
  it('offers every way to hear a console with the delay that comes of it, and makes the one that is chosen', () => {
    const text = 'console > capture card > pc; usb headset > pc; streaming app on pc; capture card > tv';
    const asked = decision('hear:', readDesk(text))!;
    for (const option of asked.options) {
      const { rig: made } = readDesk(text, { answers: new Map([[asked.id, option.id]]) });
      const pairs = evaluate(made!).pairs.filter((p) => p.sourceId === 'console' && p.ways.length > 0);
      const heard = pairs.find((p) => !p.listenerId.startsWith('streaming-app'));
      if (option.id === 'not') expect(heard).toBeUndefined();
      else {
        expect(option.label).toMatchObject({ code: 'intake.aboutDelay', params: { ms: expect.any(Number) } });
        const said = Number((option.label as Said).params.ms);
        expect(Math.abs(heard!.ways[0]!.delay.value.nominal - said)).toBeLessThanOrEqual(5);
      }
    }
    const { rig: monitored } = readDesk(text, { answers: new Map([[asked.id, 'monitor']]) });
    const app = monitored!.devices.find((d) => d.name === 'Streaming app')!;
    expect(Object.entries(app.settings).filter(([id, s]) => id.endsWith('-monitor') && s.value === 'on')).toHaveLength(
      1,
    );
    expect(monitored!.cables.filter((c) => c.from.portId === 'monitor')).toHaveLength(1);
    // The audience hears it once all the same, and no one's voice goes into one's own ears.
    expect(at(monitored!, 'console', 'streaming-app-stream').ways).toHaveLength(1);
    expect(at(monitored!, 'you', 'usb-headset').ways).toEqual([]);
  });
  it('stops asking for copy protection once it is answered, as seen', () => {
    const id = streamer.decisions.find((d) => d.id.startsWith('ask:setting:console-1'))!.id;
    const answered = readDesk(STREAMER, {
      answers: new Map([
        [id, 'off'],
        [id.replace('console-1', 'console-2'), 'off'],
      ]),
    }).rig!;
    expect(check(answered).filter((f) => f.severity === 'stop')).toEqual([]);
    expect(answered.devices.find((d) => d.id === 'console-1')!.settings['copy-protection']).toEqual({
      value: 'off',
      known: 'confirmed',
    });
  });
  it.each([
    'usb mic > pc; headphones > pc; speakers > pc; friend on voice chat on pc; game on pc; streaming app on pc',
    'me > xlr mic 1; singer > xlr mic 2; xlr mic 1 > interface; xlr mic 2 > interface; interface > laptop; headphones > interface; camera > capture card > laptop > streaming app; friend on voice chat; speakers > laptop; game on laptop',
    STREAMER,
  ])('makes what follows in every other way that it offers: %s', (text) => {
    const first = readDesk(text);
    const asked = first.made.filter((m) => m.choice);
    expect(asked.length).toBeGreaterThan(2);
    for (const { id, choice } of asked)
      for (const option of choice!.options) {
        const other = readDesk(text, { answers: new Map([[changeOf(id), option.id]]) });
        const now = other.made.find((m) => m.id === id)!;
        expect(now.choice!.taken).toBe(option.id);
        expect(now.choice!.options.map((o) => o.id).sort()).toEqual(choice!.options.map((o) => o.id).sort());
        // What was taken at first is made as it was; anything else is another rig, and a whole one all the same.
        expect(JSON.stringify(other.rig) === JSON.stringify(first.rig)).toBe(option.id === choice!.taken);
        expect(parseRig(other.rig)).toEqual(other.rig);
        // Whoever gives the one headset of a call away is not heard there any more.
        const isGiven = id === 'talks:usb-headset' && option.id !== choice!.taken;
        const stops = check(other.rig!).filter((f) => f.severity === 'stop');
        expect(stops.map((f) => f.says)).toEqual(
          isGiven ? [{ code: 'check.missing', params: { source: 'Your voice', listener: expect.any(String) } }] : [],
        );
      }
  });
  it('seats whoever was chosen at a mic, or somebody who was not named', () => {
    const text = 'me > xlr mic 1 > interface; xlr mic 2 > interface; interface > laptop > recorder app';
    const made = readDesk(text).made.find((m) => m.says.code === 'intake.talksInto' && m.says.params.who === 'Guest')!;
    expect(made.choice!.options.map((o) => o.label)).toEqual([{ code: 'intake.somebodyElse', params: {} }, 'You']);
    const both = readDesk(text, { answers: new Map([[changeOf(made.id), 'you']]) });
    expect(says(both)).toContain('intake.talksInto(yes, You, XLR mic 2)');
    expect(both.rig!.devices.some((d) => d.name === 'Guest')).toBe(false);
  });
  it('leaves out what is taken back, tells it still, and puts it back', () => {
    const id = streamer.made.find(
      (m) => m.says.code === 'intake.takesAsInput' && m.says.params.what === 'Capture card',
    )!.id;
    const without = readDesk(STREAMER, { without: new Set([id]) });
    expect(without.made.find((m) => m.id === id)).toMatchObject({ removed: true });
    expect(at(without.rig!, 'console-1', 'streaming-app-stream').ways).toEqual([]);
    // No one is told off for what they took out on purpose.
    expect(check(without.rig!).filter((f) => f.severity === 'stop' && !f.asks)).toEqual([]);
  });
  it('knows words of somebody’s own, and offers what may stand where an unknown one does', () => {
    const unknown = readDesk('console > blue box > tv').typed.boxes.find((b) => b.type === null)!;
    expect(unknown.word).toBe('blue box');
    expect(unknown.others.map((t) => t.id)).toContain('hdmi-splitter');
    const known = readDesk('console > my Blue Box > tv', { own: new Map([['blue box', 'hdmi-extractor']]) });
    expect(known.typed.boxes.map((b) => b.type?.id)).toEqual(['game-console', 'hdmi-extractor', 'television']);
    expect(known.typed.leads.every((l) => l.offer)).toBe(true);
  });
  it('puts between two what has to be there, and asks which', () => {
    const read = readDesk('console > pc');
    expect(decision('between', read)!.taken).toBe('capture-usb-compressed');
    const stick = readDesk('console > pc', { answers: new Map([[decision('between', read)!.id, 'capture-stick']]) });
    expect(stick.rig!.devices.map((d) => d.typeId)).toContain('capture-stick');
    const none = readDesk('console > pc', { answers: new Map([[decision('between', read)!.id, 'none']]) });
    expect(none.rig!.devices.map((d) => d.typeId)).not.toContain('capture-usb-compressed');
  });
  it('gives a call somebody at its other end, who never hears themselves', () => {
    const read = readDesk('phone on a call > mixer; xlr mic > mixer > laptop > daw');
    const caller = read.rig!.sources.find((s) => s.name === 'Caller')!;
    expect(at(read.rig!, caller.id, caller.id)).toMatchObject({ want: 'must-not', ways: [] });
    expect(says(read)).toContain('intake.withNote(intake.backTo(Mixer, Phone on call), intake.soCallHearsYou)');
  });
  it('takes a recorder at a computer for an interface, switched so, and told', () => {
    const read = readDesk('field recorder > laptop > streaming app; me');
    expect(read.rig!.listeners.some((l) => l.sound.deviceId === 'field-recorder')).toBe(false);
    expect(read.rig!.devices.find((d) => d.id === 'field-recorder')!.settings.use!.value).toBe('interface');
    expect(check(read.rig!).filter((f) => ['stop', 'fix'].includes(f.severity) && !f.asks)).toEqual([]);
    expect(says(read).some((s) => s.startsWith('intake.setTo(Field recorder, Used as'))).toBe(true);
  });
  it('knows what a computer that another one captures is for, and has its voice leave with the picture', () => {
    const read = readDesk('gaming pc > capture card > stream pc > streaming app; headset > gaming pc');
    expect(decision('purpose:', read)).toMatchObject({ taken: 'game-program' });
    expect(says(read)).toContain(
      'intake.withNote(intake.playsWhatTo(Gaming PC, Headset, Capture card), intake.bySystemSoundForStream)',
    );
    const { pairs } = evaluate(read.rig!);
    expect(pairs.filter((p) => p.want === 'must' && p.ways.length === 0)).toEqual([]);
    const own = readDesk(
      'gaming pc > capture card > stream pc > streaming app; headset > gaming pc; usb mic > stream pc',
    );
    expect(says(own).some((s) => s.includes('bySystemSound'))).toBe(false);
  });
  it('puts whoever is named with a computer on a call there, while others talk here', () => {
    const read = readDesk('me > usb mic > pc > streaming app; headphones > pc; friends > pc');
    expect(says(read)).toContain('intake.isOnCallOf(Friend 1, Video call, PC)');
    const far = read.rig!.sources.find((s) => s.name === 'Friend 1')!;
    expect(at(read.rig!, far.id, 'headphones').ways.length).toBeGreaterThan(0);
  });
  it('brings what has to be there: headphones for a call, a computer for USB, whoever plays', () => {
    expect(says(readDesk('mic > pc > call'))).toContain(
      'intake.withNote(intake.pluggedInto(Headphones, Mic), intake.soYouHearCall)',
    );
    expect(says(readDesk('console > capture card'))).toContain('intake.needsComputer(1, Capture card)');
    expect(says(readDesk('guitar amp > mic > interface > laptop'))).toContain(
      'intake.playsThrough(Electric guitar or bass, Guitar amp)',
    );
    expect(says(readDesk('bass di > mixer > laptop'))).toContain(
      'intake.playsThrough(Electric guitar or bass, Bass DI)',
    );
    for (const line of ['mic > pc > call', 'guitar amp > mic > interface > laptop', 'bass di > mixer > laptop']) {
      const { rig: made } = readDesk(line);
      expect(evaluate(made!).pairs.filter((p) => p.want === 'must' && p.ways.length === 0)).toEqual([]);
      expect(check(made!).filter((f) => ['stop', 'fix'].includes(f.severity) && !f.asks)).toEqual([]);
    }
  });
  it('puts an adapter where a plug wants power or a line is too loud, and takes it back', () => {
    const lav = readDesk('lavalier > interface > laptop > daw; me');
    expect(says(lav)).toContain('intake.between(Adapter from a lapel mic to XLR, Lavalier, Interface)');
    expect(check(lav.rig!).some((f) => f.rule === 'power-plug-in-missing')).toBe(false);
    const pad = readDesk('2 boom mics > field mixer > camera > capture card > laptop');
    expect(says(pad)).toContain('intake.between(Pad, Field mixer, Camera)');
    expect(check(pad.rig!).some((f) => f.rule === 'level-into-microphone')).toBe(false);
    const id = pad.made.find((m) => m.says.params.device === 'Pad')!.id;
    const without = readDesk('2 boom mics > field mixer > camera > capture card > laptop', { without: new Set([id]) });
    expect(without.rig!.devices.some((d) => d.typeId === 'pad')).toBe(false);
    const isStraight = (c: Rig['cables'][number]) => c.from.deviceId === 'field-mixer' && c.to.deviceId === 'camera';
    expect(without.rig!.cables.some(isStraight)).toBe(true);
  });
  it('sets a console so that it can be captured, as long as nobody says otherwise', () => {
    const text = 'console > capture card > pc > streaming app';
    const read = readDesk(text);
    expect(decision('ask:', read)).toMatchObject({ taken: 'off', answered: false });
    expect(read.rig!.devices.find((d) => d.id === 'console')!.settings['copy-protection']).toMatchObject({
      known: 'assumed',
    });
    expect(check(read.rig!).filter((f) => f.severity === 'stop')).toEqual([]);
    const on = readDesk(text, { answers: new Map([[decision('ask:', read)!.id, 'on']]) });
    expect(check(on.rig!).filter((f) => f.severity === 'stop')).not.toEqual([]);
  });
  it('makes the same desk of a mere list: one input for two consoles is shared, a friend is on the call', () => {
    const list = readDesk(
      '2 consoles, 1 pc, 1 capture card, headset on call, mic through small usb mixer, phone, friend, streaming app',
    );
    expect(says(list)).toContain(
      'intake.withNote(intake.between(HDMI switch, list.and(Console 1, Console 2), Capture card), intake.oneInputForThem)',
    );
    expect(list.rig!.moments).toHaveLength(1);
    expect(list.rig!.sources.map((s) => s.name).sort()).toEqual([
      'Console 1',
      'Console 2',
      'Friend',
      'Phone',
      'Your voice',
    ]);
    for (const moment of [null, list.rig!.moments[0]!.id])
      expect(evaluationAt(list.rig!, moment).pairs.filter((p) => p.want === 'must' && p.ways.length === 0)).toEqual([]);
    expect(check(list.rig!).filter((f) => ['stop', 'fix'].includes(f.severity) && !f.asks)).toEqual([]);
    const shared = list.made.find((m) => m.says.params.device === 'HDMI switch')!;
    const back = readDesk('2 consoles > capture card > pc', { without: new Set([shared.id]) });
    expect(back.made.filter((m) => m.id === shared.id)).toMatchObject([{ removed: true }]);
    expect(back.rig!.devices.some((d) => d.typeId.startsWith('hdmi-switch'))).toBe(false);
    const many = readDesk('3 consoles > capture card > pc').rig!;
    expect(many.devices.some((d) => d.typeId === 'hdmi-switch-3')).toBe(true);
    expect(new Set(many.cables.map((c) => `${c.to.deviceId}.${c.to.portId}`)).size).toBe(many.cables.length);
  });
  it('knows stands and lamps for what they are, and finds the way of a camera that was only listed', () => {
    const read = readDesk('camera, usb mic, laptop, tripod, ring light; video call');
    expect(read.typed.boxes.filter((b) => b.type?.ports.length === 0).map((b) => b.word)).toEqual([
      'tripod',
      'ring light',
    ]);
    expect(read.typed.leads.filter((l) => !l.offer)).toEqual([]);
    expect(decision('between:camera', read)!.taken).toBe('capture-usb-compressed');
    expect(says(read)).toContain('intake.usesForCamera(Video call, USB capture card)');
  });
  it('has two voices of one pair on both sides of a stream, and apart on the tracks of a recorder', () => {
    const sides = (program: string) => {
      const { rig: made } = readDesk(`2 players > 2 xlr mics > interface > laptop > ${program}`);
      const ids = new Set(
        made!.listeners.filter((l) => l.sound.deviceId === program.replaceAll(' ', '-')).map((l) => l.id),
      );
      return evaluate(made!)
        .pairs.filter((p) => ids.has(p.listenerId) && p.ways.length > 0)
        .map((p) => p.ways[0]!.sides.length);
    };
    expect(new Set(sides('streaming app'))).toEqual(new Set([2]));
    expect(sides('daw').length).toBeGreaterThan(0);
  });
  it('has whoever types listen where loudspeakers play and nobody was named', () => {
    const { rig: made } = readDesk('cd player > mixer > amp > passive speakers');
    expect(made!.listeners.map((l) => l.name)).toEqual(['Your headphones']);
    expect(made!.sources.map((s) => s.name)).toEqual(['Cd player']);
    expect(check(made!).filter((f) => ['stop', 'fix'].includes(f.severity) && !f.asks)).toEqual([]);
  });
  it('keeps a caller from themselves by the mix-minus of a talk mixer, whichever way the phone comes in', () => {
    const { rig: made } = readDesk(
      'host > mic > podcast mixer; phone on a call > podcast mixer; headphones > podcast mixer',
    );
    const caller = made!.sources.find((s) => s.name === 'Caller')!;
    const host = made!.sources.find((s) => s.name === 'Host')!;
    const far = made!.listeners.find((l) => l.name === 'Caller')!;
    expect(at(made!, caller.id, far.id)).toMatchObject({ want: 'must-not', ways: [] });
    expect(at(made!, host.id, far.id).ways.length).toBeGreaterThan(0);
    expect(at(made!, caller.id, 'headphones').ways.length).toBeGreaterThan(0);
  });
  it('leaves several mics in front of one drum kit, which stand there on purpose', () => {
    const { rig: made } = readDesk('drum kit with 2 mics > interface > laptop > daw');
    expect(made!.cables.filter((c) => c.from.deviceId === 'drum-kit' && c.medium === 'air')).toHaveLength(2);
    expect(check(made!).map((f) => f.rule)).not.toContain('room-two-microphones');
  });
  it('takes a voice on a later channel to both sides of a call', () => {
    const { rig: made } = readDesk('digital piano > interface; lavalier > interface > laptop > call; me');
    const you = made!.sources.find((s) => s.name === 'Your voice')!;
    const far = made!.listeners.find((l) => l.name === 'Caller')!;
    expect(at(made!, you.id, far.id).ways[0]!.sides).toHaveLength(2);
  });
  it('makes a whole rig of any words in any order, or says that nothing was understood', () => {
    const word = fc.constantFrom(
      ...'console mic usb headset mixer pc laptop > ; , into from on with and call friend me stream daw tv splitter phone 2 4 teapot speakers audience guitar the my'.split(
        ' ',
      ),
    );
    expect(readDesk('console; console teapot').typed.boxes.flatMap((b) => b.left)).toEqual(['teapot']);
    fc.assert(
      fc.property(fc.array(word, { maxLength: 16 }), (words) => {
        const { rig: made, typed } = readDesk(words.join(' '));
        if (!made) {
          expect(typed.boxes.filter((b) => b.type !== null)).toEqual([]);
          return;
        }
        expect(parseRig(JSON.parse(JSON.stringify(made)))).toEqual(made);
        evaluate(made);
        if (words.includes('teapot')) expect(typed.boxes.some((b) => b.left.includes('teapot'))).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
  it('is for what its words say, whatever else it might be for', () => {
    const purpose = (text: string) => decision('purpose:', readDesk(text))?.taken;
    expect(purpose('usb mic, laptop')).toBe('recording-program');
    expect(purpose('streaming from home: usb mic, laptop')).toBe('capture-program');
    expect(purpose('console > capture card > pc')).toBe('capture-program');
    expect(purpose('recorded at home: console > capture card > pc')).toBe('recording-program');
    const asked = decision('purpose:', readDesk('streaming from home: usb mic, laptop'))!;
    const call = readDesk('streaming from home: usb mic, laptop', { answers: new Map([[asked.id, 'call']]) });
    expect(decision('purpose:', call)).toMatchObject({ taken: 'call', answered: true });
  });
  it('hands a mic to whoever goes into a mixer, unless one is there', () => {
    const bare = readDesk('singer > mixer > recorder');
    expect(says(bare)).toContain(
      'intake.withNote(intake.pluggedInto(Dynamic microphone, Mixer), intake.talksIntoIt(no, Singer))',
    );
    expect(evaluate(bare.rig!).pairs.every((p) => p.ways.length > 0)).toBe(true);
    const given = bare.made.find((m) => m.says.params.device === 'Dynamic microphone')!;
    const without = readDesk('singer > mixer > recorder', { without: new Set([given.id]) });
    expect(without.made.find((m) => m.id === given.id)!.removed).toBe(true);
    expect(without.rig!.devices.map((d) => d.name)).not.toContain('Dynamic microphone');
    const own = readDesk('singer > mixer; mic > mixer; mixer > recorder');
    expect(says(own)).toContain('intake.talksInto(no, Singer, Mic)');
    expect(own.rig!.devices).toHaveLength(4);
  });
  it('finds a receiver for a transmitter that was only listed, and asks which', () => {
    const read = readDesk('wireless mic, mixer, powered speakers');
    const asked = decision('between:', read)!;
    expect(asked.asks).toMatchObject({ code: 'intake.noCableStraight', params: { from: 'Wireless mic', to: 'Mixer' } });
    expect(read.rig!.cables.filter((c) => c.medium === 'radio' || c.medium === 'lead').length).toBeGreaterThan(2);
    const not = readDesk('wireless mic, mixer, powered speakers', { answers: new Map([[asked.id, 'none']]) });
    const receivers = (of: typeof read) =>
      of.rig!.devices.filter((d) => d.name.startsWith('Wireless microphone')).length;
    expect([receivers(read), receivers(not)]).toEqual([1, 0]);
  });
  it('puts an interface between mics that were only listed and a computer, with an input for each, and asks which', () => {
    for (const n of [1, 2, 3, 4, 6, 8]) {
      const read = readDesk(`${n} condenser mics, laptop`);
      const asked = decision('into:', read)!;
      expect(asked.options.length, `${n} mics`).toBeGreaterThan(1);
      const heard = evaluate(read.rig!).pairs.filter((p) => p.want === 'must');
      expect(
        heard.filter((p) => p.ways.length === 0),
        `${n} mics`,
      ).toEqual([]);
      expect(new Set(heard.map((p) => p.sourceId)).size, `${n} mics`).toBe(n);
      expect(check(read.rig!).filter((f) => f.severity === 'stop')).toEqual([]);
      const not = readDesk(`${n} condenser mics, laptop`, { answers: new Map([[asked.id, 'none']]) });
      expect(not.rig!.cables.filter((c) => c.medium === 'lead')).toEqual([]);
    }
    // Whatever takes it already is enough.
    for (const text of ['usb mic, laptop', 'xlr mic, interface, laptop', 'xlr mic, mixer, laptop'])
      expect(decision('into:', readDesk(text))).toBeUndefined();
  });
});
