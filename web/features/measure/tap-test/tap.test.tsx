// @vitest-environment happy-dom
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import {
  drillTable,
  explain,
  fewestTakes,
  gateOf,
  type Players,
  playersOf,
  type StandInDesk,
  type TakeRead,
  tappable,
} from '#core/desk-tests/tap-test/index.ts';
import { readingsAt, rigWith } from '#core/desk-tests/tap-test/taptest.testkit.ts';
import { faultsOf } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { selectRig } from '#web/shared/store/index.ts';
import { clearPage, demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { tapTest as say, work } from '#words/index.ts';
import { TapTestScreen } from './index.ts';
import { keepTap, NO_TAP, readTap } from './kept.ts';
import { saySure, sayUnderLoudest, verdictOf } from './words.ts';

const rig = demoRig();
const hidden = 'set:capture-program.in-3-not-on-2:false';
const ids = rig.listeners.map((l) => l.id);

/** What the worker would read, without any sound: a desk with a fault, or as drawn. */
/** A take as it stands in the browser once it has been read. */
const keptTake = (id: string, tunes: TakeRead['tunes']) => ({
  id,
  name: id,
  listenerId: id,
  fileId: id,
  by: 'take' as const,
  at: '2026-11-02T08:00:00.000Z',
  tunes: tunes as (typeof NO_TAP)['takes'][number]['tunes'],
  pictures: [],
});

function readAt(here: Rig, { seed, faultId }: StandInDesk, listenerId: string, players: Players): TakeRead['tunes'] {
  const fault = faultsOf(here, evaluate(here)).find((f) => f.id === faultId);
  return readingsAt(fault ? rigWith(here, fault) : here, fault?.dead ?? [], ids, players, seed).find(
    (t) => t.listenerId === listenerId,
  )!.tunes;
}
const job = <T,>(result: T | Error) => ({
  result: result instanceof Error ? Promise.reject(result) : Promise.resolve(result),
  stop: () => undefined,
});
const chance = { middle: 0, spread: 1 };
/** What files hold, by their names. */
const held = vi.hoisted(() => ({ tracks: (_: string): unknown => [] }));
vi.mock('#web/shared/workers/index.ts', async (original) => ({
  ...((await original()) as object),
  tapStandIn: (here: Rig, desk: StandInDesk, listenerId: string, players: Players) =>
    job(listenerId === 'track-5' ? null : { tunes: readAt(here, desk, listenerId, players), chance, seconds: 20 }),
  readTapTake: (source: { file?: File; name?: string }) => job(held.tracks(JSON.stringify(source))),
  explainTap: (here: Rig, takes: readonly TakeRead[], players: Players) => job(explain(here, takes, players)),
  hideFaultFor: (here: Rig) =>
    job({
      desk: { seed: 21, faultId: hidden },
      fewest: fewestTakes(drillTable(here, ids, tappable(here, ids)), hidden),
    }),
}));

beforeEach(() => {
  stubServer(noServer);
  localStorage.clear();
});

const open = (view: string, here = rig) =>
  show(
    <Routes>
      <Route path="/rigs/:rigId/tap" element={<TapTestScreen />} />
    </Routes>,
    { rig: here, at: `/rigs/${RIG_ID}/tap?view=${view}` },
  );
const choose = (files: File[]) => fireEvent.change(screen.getByLabelText(say.tapTestTakes()), { target: { files } });
const takes = () => screen.queryAllByRole('listitem').map((li) => li.textContent!);
const tapAll = async (user: ReturnType<typeof userEvent.setup>) => {
  await user.click(screen.getByRole('button', { name: /Record all/ }));
  await waitFor(() => expect(takes().filter((t) => t.includes('found of')).length).toBe(ids.length - 1));
  await user.click(screen.getByRole('button', { name: say.nextReadings() }));
};

describe('before anything plays', () => {
  it('an open question blocks; answers outlive a reload, and beginning anew asks again', async () => {
    const user = userEvent.setup();
    open('play');
    const on = () => screen.getByRole<HTMLButtonElement>('button', { name: /Next: add takes/ });
    expect(on().disabled).toBe(true);
    expect(screen.queryAllByRole('link', { name: 'Play here' })).toEqual([]);
    const boxes = screen.getAllByRole('checkbox');
    expect(boxes).toHaveLength(gateOf(rig).length);
    for (const box of boxes) await user.click(box);
    expect(on().disabled).toBe(false);
    const links = screen.getAllByRole('link', { name: 'Play here' }).map((a) => a.getAttribute('href'));
    expect(links[1]).toBe('/tune?id=2&for=Wren%2C%20voice');
    clearPage();
    open('play');
    expect(on().disabled).toBe(false);
    await user.click(screen.getByRole('button', { name: say.startOver() }));
    expect(on().disabled).toBe(true);
  });
  it('says who plays what, and what is known of where; that tells more about time', async () => {
    const user = userEvent.setup();
    open('play');
    await user.selectOptions(screen.getByLabelText('Who plays “Desk game”'), 'same player as “Couch game”');
    await user.selectOptions(screen.getByLabelText('Where “Wren, voice” is played at a mic'), 'Stream');
    const kept = readTap(RIG_ID);
    expect(kept.players.find((p) => p.sourceId === 'desk-game')!.playerId).toBe('couch-game');
    expect(kept.players.find((p) => p.sourceId === 'wren')!.knownAt).toEqual(['stream']);
    fireEvent.keyDown(document.body, { key: 'n', code: 'KeyN' });
    await tapAll(user);
    await user.click(screen.getByRole('gridcell', { name: /^Desk game at Stream/ }));
    expect(screen.getByTestId('reading').textContent).toContain('only known relative to other sources in this take');
  });
});

describe('takes in a heap', () => {
  const players = playersOf(rig);
  const reading = (listenerId: string) => ({
    tunes: readAt(rig, { seed: 4, faultId: null }, listenerId, players),
    chance,
    seconds: 20,
  });
  const named = (name: string) => new File(['x'], name, { type: 'audio/wav' });
  it('find their listeners by name, by what they hold, or by whoever says it', async () => {
    const user = userEvent.setup();
    held.tracks = () => [{ channel: null, name: '', reading: reading('track-2'), pictures: [] }];
    open('takes');
    const lastIs = (name: string) => waitFor(() => expect(readTap(RIG_ID).takes.at(-1)?.name).toBe(name));
    choose([named('first.wav')]);
    await lastIs('first.wav');
    expect(readTap(RIG_ID).takes[0]!.listenerId).toBe('track-2');
    // Another that holds the same does not push it out; one that is named does.
    choose([named('recording.wav')]);
    await lastIs('recording.wav');
    expect(readTap(RIG_ID).takes.map((t) => t.listenerId)).toEqual(['track-2', null]);
    await user.selectOptions(screen.getByLabelText('Destination of “recording.wav”'), 'Room');
    expect(readTap(RIG_ID).takes.at(-1)).toMatchObject({ listenerId: 'room', name: 'recording.wav' });
    await user.click(screen.getByRole('button', { name: 'Exclude “recording.wav”' }));
    expect(takes().some((t) => t.includes('recording.wav'))).toBe(false);
    choose([named('Track 2, console.wav')]);
    await lastIs('Track 2, console.wav');
    expect(readTap(RIG_ID).takes).toHaveLength(1);
  });
  it('of many tracks are a listener a track, on one clock', async () => {
    held.tracks = () => [
      { channel: 0, name: 'Stream', reading: reading('stream'), pictures: [] },
      { channel: 1, name: 'Backup recorder', reading: reading('backup'), pictures: [] },
      { channel: 2, name: 'nothing on it', reading: null, pictures: [] },
    ];
    open('takes');
    choose([named('all.wav')]);
    await waitFor(() => expect(readTap(RIG_ID).takes).toHaveLength(2));
    const [a, b] = readTap(RIG_ID).takes;
    expect([a!.listenerId, b!.listenerId]).toEqual(['stream', 'backup']);
    expect(a!.fileId).toBe(b!.fileId);
    expect(a!.name).toBe('all.wav, Stream');
  });
  it('that hold nothing, or cannot be read, say so in a sentence and lose nothing', async () => {
    const user = userEvent.setup();
    held.tracks = () => [{ channel: null, name: '', durationS: 12, reading: null, pictures: [] }];
    open('takes');
    choose([named('hush.wav')]);
    expect(await screen.findByText(/hush.wav: It’s silent/)).toBeTruthy();
    held.tracks = () => [{ channel: null, name: '', durationS: 4.2, reading: null, pictures: [] }];
    choose([named('short.wav')]);
    expect(await screen.findByText(/short.wav: It’s 4.2 s long: too short/)).toBeTruthy();
    held.tracks = () => new Error('This is no sound that the browser can read.');
    choose([named('broken.xyz')]);
    expect(await screen.findByText(/broken.xyz: This is no sound/)).toBeTruthy();
    await user.click(screen.getAllByRole('button', { name: work.discard() })[0]!);
    expect(takes().some((t) => t.includes('hush.wav'))).toBe(false);
    held.tracks = () => [{ channel: null, name: '', reading: reading('stream'), pictures: [] }];
    choose([named('Stream.wav')]);
    await waitFor(() => expect(readTap(RIG_ID).takes).toHaveLength(1));
  });
  it('tell how late sound is against the panel in their picture', async () => {
    const own = reading('stream');
    const tune = own.tunes.find((t) => t.heard)!.id;
    held.tracks = () => [
      { channel: null, name: '', reading: own, pictures: [{ tune, offsetMs: 84.2, boundMs: 1.4, read: 300, of: 301 }] },
    ];
    const user = userEvent.setup();
    open('takes');
    choose([named('Stream.webm')]);
    await user.click(await screen.findByRole('button', { name: say.nextReadings() }));
    const source = rig.sources[tune]!.name;
    await user.click(screen.getByRole('gridcell', { name: new RegExp(`^${source} at Stream`) }));
    expect(screen.getByTestId('reading').textContent).toContain('+84.2 ms, ±1.4 ms');
    expect(screen.getByTestId('reading').textContent).toContain('300 of 301 frames read');
  });
});

describe('readings', () => {
  it('of a desk that is as drawn say so, cell by cell, and what the plan has against it', async () => {
    const user = userEvent.setup();
    open('takes');
    await tapAll(user);
    const grid = screen.getByRole('grid', { name: say.whoGetsWhatAs() });
    expect(
      within(grid).getByRole('gridcell', { name: /^Couch game at Track 2, console: must, as drawn/ }),
    ).toBeTruthy();
    const apart = screen.getByLabelText(say.whatDoesntMatch()).textContent!;
    expect(apart).toContain('“Ilse, on the call” must not arrive at “Ilse’s ears”, but does');
    expect(apart).not.toContain('should not reach');
    // Walked by arrow keys; the reading follows.
    const cell = within(grid).getByRole('gridcell', { name: /^Couch game at Stream/ });
    await user.click(cell);
    await user.keyboard('{ArrowDown}');
    expect(screen.getByTestId('reading').textContent).toContain('“Wren, voice” at “Stream”');
    expect(screen.getByTestId('reading').textContent).toContain('Sure (0.999)');
    // Outlives a reload.
    clearPage();
    open('read');
    expect(screen.getByRole('grid', { name: say.whoGetsWhatAs() })).toBeTruthy();
  });
  it('that are louder or quieter than the others would have them name the knobs that would do that', async () => {
    const user = userEvent.setup();
    const players = playersOf(rig);
    const wren = players.find((p) => p.sourceId === 'wren')!.tune;
    const quieter = (listenerId: string) =>
      readAt(rig, { seed: 4, faultId: null }, listenerId, players).map((t) =>
        t.id === wren && t.heard && listenerId === 'stream'
          ? { ...t, heard: { ...t.heard, gainDb: t.heard.gainDb - 5 } }
          : t,
      );
    const takes = ids.filter((id) => id !== 'track-5').map((id) => keptTake(id, quieter(id)));
    keepTap(RIG_ID, { ...NO_TAP, takes });
    const { store } = open('read');
    await user.click(screen.getByRole('gridcell', { name: /^Wren, voice at Stream/ }));
    const causes = screen.getByLabelText(say.possibleCauses());
    expect(screen.getByTestId('reading').textContent).toMatch(/It is [45]\.\d dB quieter than the other readings/);
    expect(causes.textContent).toMatch(/is at .* dB, not /);
    await user.click(within(causes).getAllByRole('button', { name: say.thatsCause() })[0]!);
    const after = selectRig(store.getState())!;
    expect(
      after.measurements.some((m) => m.kind === 'level' && m.sourceId === 'wren' && m.listenerId === 'stream'),
    ).toBe(true);
  });
  it('whose delay moves say so once a take, with what is not told; no figure is made of them', async () => {
    const user = userEvent.setup();
    const players = playersOf(rig);
    const takes = ['stream', 'ilse', 'backup'].map((id) =>
      keptTake(
        id,
        readAt(rig, { seed: 4, faultId: null }, id, players).map((t) =>
          t.heard && id === 'ilse'
            ? {
                ...t,
                heard: {
                  ...t.heard,
                  ppm: null,
                  polarity: null,
                  seconds: { ways: [], noneAboveDb: 0 },
                  wander: { earliestMs: -14, latestMs: 22 },
                  bands: t.heard.bands.map((b) => ({ ...b, db: null })),
                  blocks: Array.from({ length: 15 }, (_, i) => ({ standsOut: 9, lateMs: 3 * (i % 5) - 6, db: -20 })),
                  response: [],
                },
              }
            : t,
        ),
      ),
    );
    keepTap(RIG_ID, { ...NO_TAP, takes });
    open('read');
    const apart = screen.getByLabelText(say.whatDoesntMatch());
    expect(apart.textContent!.match(/ms later than in the middle\. The receiver/g)).toHaveLength(1);
    expect(apart.textContent).toMatch(
      /“Couch game”, .* and .* → “Ilse’s ears”: the delay keeps changing, up to 14 ms earlier and 22 ms later/,
    );
    await user.click(screen.getByRole('gridcell', { name: /^Wren, voice at Ilse.*wanders/ }));
    const reading = screen.getByTestId('reading');
    expect(reading.textContent).toContain('“Wren, voice” → “Ilse’s ears”: the delay keeps changing');
    expect(within(reading).getByRole('img', { name: 'Wren, voice: how late, second by second' })).toBeTruthy();
    expect(within(reading).queryByRole('img', { name: /arrivals|band/ })).toBeNull();
    expect(within(reading).getByRole('row', { name: /^Clock/ }).textContent).toBe('Clock——');
    const figures = screen.queryByLabelText('Figures for the rig')?.textContent ?? '';
    expect(figures).not.toContain('Ilse’s ears');
  });
  it('give figures to the rig, each once, as one step that can be undone', async () => {
    const user = userEvent.setup();
    const { store } = open('takes');
    await tapAll(user);
    const figures = () =>
      within(screen.getByLabelText('Figures for the rig')).getAllByRole('button', { name: /Add to rig:/ });
    const before = figures().length;
    expect(before).toBeGreaterThan(3);
    await user.click(figures()[0]!);
    expect(selectRig(store.getState())!.measurements).toHaveLength(rig.measurements.length + 1);
    await user.click(screen.getByRole('button', { name: /to the rig/ }));
    expect(selectRig(store.getState())!.measurements.length).toBeGreaterThanOrEqual(before);
  });
});

describe('a drill', () => {
  it('hides a fault that takes tell of; it is explained, named, scored, and drawn as it is', async () => {
    const user = userEvent.setup();
    const { store } = open('takes');
    await user.click(screen.getByRole('button', { name: /Practice: hide a fault/ }));
    expect(await screen.findByText(/Practice is on/)).toBeTruthy();
    await user.selectOptions(screen.getByLabelText(say.destinationToSimulate()), 'Track 2, console');
    await user.click(await screen.findByRole('button', { name: say.nextReadings() }));
    expect(screen.getByLabelText(say.whatDoesntMatch()).textContent).toContain(
      '“Wren, voice” should not reach “Track 2, console”, but does',
    );
    // No verb that would give it away before it was said.
    fireEvent.keyDown(document.body, { key: 'e', code: 'KeyE' });
    const first = (await screen.findAllByText(/mute on track 2: off/))[0]!.closest('li')!;
    expect(within(first).queryByRole('button', { name: /Fixed at the desk: test again/ })).toBeNull();
    expect(first.textContent).toContain('Explains');
    await user.click(within(first).getByRole('button', { name: say.thatsCause() }));
    const over = screen.getByTestId('drill-over').textContent!;
    expect(over).toContain('Found, with 1 take.');
    expect(over).toMatch(/It was this: “Streaming software”/);
    await user.click(screen.getAllByRole('button', { name: say.updateDrawingToMatch() })[0]!);
    expect(JSON.stringify(selectRig(store.getState()))).not.toBe(JSON.stringify(rig));
    await waitFor(() => expect(document.body.textContent).not.toContain('Wren, voice should not reach'));
    await user.click(screen.getByRole('button', { name: say.closeExercise() }));
    expect(readTap(RIG_ID)).toMatchObject({ drill: null, takes: [], desk: { faultId: null } });
  });
  it('may be given up: then it says what it was', async () => {
    const user = userEvent.setup();
    open('takes');
    await user.click(screen.getByRole('button', { name: /Practice: hide a fault/ }));
    await screen.findByText(/Practice is on/);
    await user.selectOptions(screen.getByLabelText(say.destinationToSimulate()), 'Stream');
    await user.click(await screen.findByRole('button', { name: say.nextReadings() }));
    await user.click(screen.getByRole('button', { name: 'Give up' }));
    expect(screen.getByTestId('drill-over').textContent).toMatch(/Given up, after 1 take.*mute on track 2/);
  });
  it('mended at the desk, without a change of the drawing, is tapped again', async () => {
    const user = userEvent.setup();
    keepTap(RIG_ID, { ...NO_TAP, desk: { seed: 21, faultId: hidden } });
    open('takes');
    await user.selectOptions(screen.getByLabelText(say.destinationToSimulate()), 'Track 2, console');
    await user.click(await screen.findByRole('button', { name: say.nextReadings() }));
    await user.click(screen.getByRole('button', { name: /Find what explains it/ }));
    await user.click((await screen.findAllByRole('button', { name: say.fixedAtDeskTest() }))[0]!);
    expect(readTap(RIG_ID)).toMatchObject({ takes: [], desk: { faultId: null } });
    await tapAll(user);
    expect(screen.getByLabelText(say.whatDoesntMatch()).textContent).not.toContain('should not reach');
  });
});

describe('what is kept in the browser', () => {
  it('is nothing where it is not what was written', () => {
    localStorage.setItem(`mellow.tap.${RIG_ID}`, '{"version":1,"takes":"all"}');
    expect(readTap(RIG_ID)).toEqual(NO_TAP);
    localStorage.setItem(`mellow.tap.${RIG_ID}`, 'not JSON');
    expect(readTap(RIG_ID)).toEqual(NO_TAP);
  });
  it('is said to be lost where there is no room', async () => {
    const user = userEvent.setup();
    open('takes');
    const full = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    vi.stubGlobal('localStorage', {
      getItem: () => null,
      setItem: full,
      removeItem: () => undefined,
      clear: () => undefined,
    });
    await user.selectOptions(screen.getByLabelText(say.destinationToSimulate()), 'Stream');
    expect(await screen.findByText(/Browser storage is full, so these takes will be/)).toBeTruthy();
  });
});

describe('words of a reading', () => {
  const [take] = readingsAt(rig, [], ['stream'], playersOf(rig), 1);
  const read = take!.tunes.find((t) => t.heard)!;
  const cell = {
    sourceId: 'a',
    listenerId: 'stream',
    want: null,
    expected: { sourceId: 'a', listenerId: 'stream', ways: [], underDb: null },
    read,
    underDb: 3,
    toPlan: 'as-wanted',
    disagreements: [],
    time: null,
    levelOffDb: null,
    clockOffPpm: null,
  } as const;
  it('claim no more than was found', () => {
    expect(saySure(cell)).toMatch(/^Sure \(0.999\)/);
    expect(saySure({ read: { ...read, confidence: 0.96 } })).toMatch(/^Nearly sure/);
    expect(saySure({ read: { ...read, word: 'perhaps', overChance: 5 } })).toMatch(/^Possible \(5 standard deviations/);
    expect(saySure({ read: { ...read, word: 'not-found' } })).toContain('Not found doesn’t mean not connected');
    expect(saySure({ read: null })).toBe('No tune was looked for.');
  });
  it('put what the drawing lacks before what the plan lacks', () => {
    expect(verdictOf(cell)).toEqual({ state: 'good', word: 'as drawn' });
    expect(verdictOf({ ...cell, toPlan: 'unwanted' })).toEqual({
      state: 'fix',
      word: say.shouldNotArrive(),
    });
    const late = { kind: 'late', weight: 1.2, ms: 30 } as const;
    const twice = { kind: 'twice', weight: 3, afterMs: 80, underDb: 6 } as const;
    expect(verdictOf({ ...cell, toPlan: 'unwanted', disagreements: [late, twice] })).toEqual({
      state: 'fix',
      word: 'twice +1',
    });
    expect(verdictOf({ ...cell, disagreements: [late] })).toEqual({ state: 'watch', word: 'time' });
    expect(verdictOf({ ...cell, read: { ...read, word: 'not-found' } })).toEqual({ state: 'none', word: '' });
  });
  it('say how far under the loudest', () => {
    expect([null, 0.2, 12.4].map(sayUnderLoudest)).toEqual(['', 'loudest', '−12 dB']);
  });
});
