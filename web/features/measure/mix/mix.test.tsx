// @vitest-environment happy-dom
import { fireEvent, screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { TrackMeasured, TrackReading } from '#core/audio/mix/index.ts';
import { keepForTakes, readForTakes } from '#web/shared/take/index.ts';
import type { TakeFacts } from '#web/shared/workers/index.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { firstSetup, joinedWithNext, MixSetup, withTrack } from './setup.ts';
import { TrackTable } from './TrackTable.tsx';
import { Whole } from './Whole.tsx';

const facts = (channels: number, ...trackNames: string[]): TakeFacts => ({
  sampleRateHz: 48_000,
  channels,
  seconds: 30,
  trackNames,
});
const five = () =>
  firstSetup(
    [facts(5, 'Wren, voice', 'Ilse, on the call', 'Couch voices', 'Couch game', 'Ambrose, jingles')],
    ['relay.wav'],
    demoRig(),
  );

describe('what the tracks are at first', () => {
  it('is what the rig says of the sources that they are named after', () => {
    const { tracks } = five();
    expect(tracks.map((t) => [t.part, t.underLu])).toEqual([
      ['main', 0],
      ['voice', 2],
      ['voice', 1],
      ['bed', 11],
      ['bed', 17],
    ]);
    expect(tracks.map((t) => t.channels)).toEqual([[0], [1], [2], [3], [4]]);
  });
  it('is what their names say without a rig; somebody is the main voice always', () => {
    const { tracks } = firstSetup([facts(1), facts(2), facts(1)], ['host mic.wav', 'game.wav', 'noise.wav'], null);
    expect(tracks.map((t) => [t.name, t.part, t.channels])).toEqual([
      ['host mic', 'main', [0]],
      ['game', 'bed', [0, 1]],
      ['noise', 'bed', [0]],
    ]);
    expect(firstSetup([facts(3)], ['x.wav'], null).tracks.map((t) => [t.name, t.part])).toEqual([
      ['x, track 1', 'main'],
      ['x, track 2', 'bed'],
      ['x, track 3', 'bed'],
    ]);
  });
  it('has one main voice, whoever becomes it', () => {
    const changed = withTrack(five(), 1, { part: 'main' });
    expect(changed.tracks.map((t) => t.part)).toEqual(['voice', 'main', 'voice', 'bed', 'bed']);
    expect(changed.tracks[1]!.underLu).toBe(0);
    expect(changed.tracks[0]!.underLu).toBe(1);
  });
  it('joins neighbours of one take as left and right, and parts them again', () => {
    const joined = joinedWithNext(five(), 3);
    expect(joined.tracks[3]).toMatchObject({ name: 'Couch game', channels: [3, 4] });
    expect(joined.tracks).toHaveLength(4);
    expect(joinedWithNext(joined, 3).tracks.map((t) => t.channels)).toEqual([[0], [1], [2], [3], [4]]);
    expect(joinedWithNext(joined, 2)).toBe(joined);
    const two = firstSetup([facts(1), facts(1)], ['a.wav', 'b.wav'], null);
    expect(joinedWithNext(two, 0)).toBe(two);
  });
  it('is kept across reloads, and never believed when it is something else', () => {
    const setup = withTrack(five(), 3, { underLu: 14 });
    keepForTakes('balance', ['t'], setup);
    expect(readForTakes('balance', ['t'], MixSetup)).toEqual(setup);
    keepForTakes('balance', ['t'], { ...setup, tracks: 'many' });
    expect(readForTakes('balance', ['t'], MixSetup)).toBeNull();
    localStorage.setItem('mellow-tap.balance.t', '{');
    expect(readForTakes('balance', ['t'], MixSetup)).toBeNull();
  });
});

const reading = (underLu: number, places: TrackReading['places'] = []): TrackReading => ({
  levelLufs: -20 - underLu,
  underLu,
  apart: false,
  places,
});
const levels = {
  integratedLufs: -16,
  rangeLu: 4,
  maxMomentaryLufs: -12,
  maxShortTermLufs: -14,
  truePeakDbtp: -1.2,
  samplePeakDbfs: -1.3,
};

describe('the table of tracks', () => {
  const setup = five();
  const near = [
    { fromS: 4, toS: 6, underLu: 12 },
    { fromS: 17, toS: 19, underLu: 2 },
  ];
  const balancing = {
    measured: [] as TrackMeasured[],
    before: [0, 9, 5, -2, -7].map((u) => reading(u)),
    after: [reading(0), reading(2), reading(1), reading(11, near), reading(17)],
    balanced: {
      plan: { gainsDb: [5, 12, 9, -7, -18], rides: [{ track: 4, fromS: 8, toS: 9, db: -6 }], limit: null },
      levels: { ...levels, limited: null },
    },
  };
  it('says the fader, where it lies now, and where none helps; a place is gone to', () => {
    const heard: number[] = [];
    const changed: unknown[] = [];
    show(
      <TrackTable
        setup={setup}
        hues={Array(5).fill('red')}
        letters={[...'WICGA']}
        balancing={balancing}
        onTrack={(i, change) => changed.push([i, change])}
        onJoin={(i) => changed.push(['join', i])}
        onHear={(s) => heard.push(s)}
      />,
    );
    const rows = within(screen.getByTestId('tracks')).getAllByRole('row');
    const cells = (n: number) => within(rows[n]!).getAllByRole('cell');
    expect(cells(4)[4]!.textContent).toBe('−2.0');
    expect(cells(4)[6]!.textContent).toBe('11.0');
    fireEvent.click(within(cells(4)[7]!).getByRole('button', { name: '00:17: +9 LU too close' }));
    fireEvent.click(within(cells(5)[7]!).getByRole('button', { name: '00:08: turned down 6 dB' }));
    expect(heard).toEqual([18, 8.5]);
    fireEvent.change(screen.getByLabelText('Type of “Couch voices”'), { target: { value: 'main' } });
    const fader = screen.getByLabelText('Fader of “Couch game”, dB');
    fireEvent.change(fader, { target: { value: '-3,5' } });
    fireEvent.blur(fader);
    fireEvent.click(screen.getByLabelText(/^Link “Couch game” with “Ambrose/));
    expect(changed).toEqual([
      [2, { part: 'main' }],
      [3, { ownDb: -3.5 }],
      ['join', 3],
    ]);
  });
  it('says of the whole what its peaks cost', () => {
    const say = (limited: { mostDb: number; seconds: number } | null, truePeakDbtp: number) => {
      const balanced = { ...balancing.balanced, levels: { ...levels, truePeakDbtp, limited } };
      const page = show(<Whole setup={setup} balancing={{ ...balancing, balanced }} />);
      const text = page.getByTestId('whole').textContent;
      page.unmount();
      return text;
    };
    expect(say({ mostDb: 2.5, seconds: 1.2 }, -1.2)).toContain(
      'A limiter reduces gain by at most 2.5 dB, for 1.2 s in total',
    );
    expect(say({ mostDb: 2.5, seconds: 1.2 }, -1.2)).toContain('without it, −18.5 LUFS would fit');
    expect(say({ mostDb: 0, seconds: 0 }, -3)).toContain('No limiting needed');
    expect(say(null, 1.5)).toContain('2.5 dB above −1 dBTP: set a ceiling, or aim for −18.5 LUFS');
  });
});
