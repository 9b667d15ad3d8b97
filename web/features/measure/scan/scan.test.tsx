// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { compareScans, Scan, type ScanLinkSeen, type ScanRead } from '#core/desk-tests/scan/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { RIG_ID, show } from '#web/web.testkit.tsx';
import type { ScanMade } from './engine.ts';
import { ScanScreen } from './index.ts';
import { keepReference, readReference } from './kept.ts';
import { Matrix } from './Matrix.tsx';
import { PathCard } from './PathCard.tsx';
import { sayChange } from './say.ts';

const link = (more: Partial<ScanLinkSeen> = {}): ScanLinkSeen => ({
  outputId: 'o',
  inputId: 'i',
  levelDb: -6.04,
  delayMs: 41.26,
  spreadMs: 0.4,
  polarity: 1,
  sides: 'straight',
  ppm: -18.2,
  lowHz: 79,
  highHz: 12_700,
  again: [],
  levelSpreadDb: 0.1,
  responseDb: Array.from({ length: 1000 }, (_, ms) => (ms === 101 ? 0 : ms === 221 ? -8 : -60)),
  ...more,
});
const made = (links: readonly ScanLinkSeen[]): ScanMade => ({
  at: '2026-12-01T20:00:00.000Z',
  outputs: [
    { id: 'o', name: 'Headset', sampleRateHz: 48_000, playedDbfs: -54 },
    { id: 'p', name: 'Cable A in', sampleRateHz: 44_100, playedDbfs: -54 },
  ],
  inputs: [
    { id: 'i', name: 'Mixer', sampleRateHz: 48_000, channels: 2, seesFromDb: -36, silent: false, processing: [] },
    {
      id: 'j',
      name: 'Headset mic',
      sampleRateHz: 16_000,
      channels: 1,
      seesFromDb: -36,
      silent: true,
      processing: ['noise-suppression', 'echo-cancel', 'gain-control'],
    },
  ],
  links,
  hasLost: false,
  skipped: [],
});
const nothing = () => undefined;
const page = (
  <Routes>
    <Route path="/rigs/:rigId/scan" element={<ScanScreen />} />
  </Routes>
);

beforeEach(() => stubServer(noServer));

describe('the matrix of a scan', () => {
  it('says of each place what arrived there, and what is odd about an input', async () => {
    const user = userEvent.setup();
    const chosen = vi.fn();
    const odd = link({ outputId: 'p', polarity: -1, sides: 'left-only', again: [{ afterMs: 120, underDb: 8 }] });
    show(
      <Matrix
        scan={made([link(), odd])}
        changed={new Set(['Cable A in>Mixer'])}
        drawing={null}
        chosen={odd}
        onChoose={chosen}
      />,
    );
    const table = screen.getByRole('table', { name: 'What arrives where' });
    expect(within(table).getByRole('columnheader', { name: /^Headset mic/ }).textContent).toMatch(
      /16 kHz, silent throughout, noise suppression on, echo cancellation on, automatic gain control on/,
    );
    const plain = within(table).getByRole('button', { name: 'Headset to Mixer: −6.0 dB, 41.3 ms' });
    expect(plain.textContent).toBe('−6.0 dB 41.3 ms');
    const marked = within(table).getByRole('button', { name: /^Cable A in to Mixer/ });
    expect(marked.textContent).toMatch(/left only, inverted, twice/);
    expect(marked.getAttribute('aria-pressed')).toBe('true');
    expect(within(table).getAllByText('nothing')).toHaveLength(2);
    await user.click(plain);
    expect(chosen).toHaveBeenCalledOnce();
  });
});

describe('one path of a scan', () => {
  const facts = (of: ScanLinkSeen, fastestMs = 12.3) => {
    show(<PathCard link={of} from="Headset" to="Mixer" fastestMs={fastestMs} onClose={nothing} />);
    return screen.getByRole('complementary', { name: 'Headset → Mixer' });
  };
  it('tells all that was read, and what its delay holds', () => {
    const card = facts(link({ again: [{ afterMs: 120, underDb: 8 }], levelSpreadDb: 4.2 }));
    for (const says of [
      /Level−6\.0 dB, ±2\.1 dB between rounds/,
      /Delay41\.3 ms, ±0\.4 ms/,
      /Clock−18\.2 ppm against the output/,
      /Frequency range79 to 13,000 Hz|Frequency range79 to 13000 Hz/,
      /Arrives again120\.0 ms later, 8\.0 dB lower/,
      /The level changed by 4\.2 dB between quiet and loud sweeps/,
      /at most 12\.3 ms/,
    ])
      expect(card.textContent).toMatch(says);
    expect(within(card).getByRole('img', { name: /^Headset to Mixer: arrival over time/ })).toBeTruthy();
  });
  it('says what can’t be told', () => {
    const card = facts(link({ polarity: null, ppm: null }), 0);
    expect(card.textContent).toMatch(/Counted from the fastest path of this scan/);
    expect(card.textContent).toMatch(/Polaritycan’t be told/);
    expect(card.textContent).toMatch(/Clockcan’t be told: the rounds disagree/);
    expect(card.textContent).not.toMatch(/Processing/);
  });
});

describe('what moved since last time', () => {
  const before: ScanRead = made([link(), link({ outputId: 'p' })]);
  const said = (now: ScanRead) => compareScans(before, now).map(sayChange);
  it.each<[string, Partial<ScanLinkSeen>, RegExp]>([
    ['a level', { levelDb: -12 }, /“Headset” arrives at “Mixer” at −12\.0 dB\. It was −6\.0 dB\./],
    ['a delay', { delayMs: 90 }, /“Headset” arrives at “Mixer” after 90\.0 ms\. It was 41\.3 ms\./],
    ['a polarity', { polarity: -1 }, /opposite polarity/],
    ['sides', { sides: 'mono' }, /other sides of “Mixer”/],
    ['a band', { highHz: 3400 }, /another frequency range/],
    ['a second arrival', { again: [{ afterMs: 50, underDb: 6 }] }, /second arrival of “Headset” at “Mixer” changed/],
  ])('is said in a sentence: %s', (_, more, says) => {
    const sentences = said(made([link(more), link({ outputId: 'p' })]));
    expect(sentences).toHaveLength(1);
    expect(sentences[0]).toMatch(says);
  });
  it('is said of links and devices that came or went', () => {
    const now = made([link()]);
    expect(said(now)).toEqual(['“Cable A in” no longer arrives at “Mixer”.']);
    const other = {
      ...now,
      outputs: [now.outputs[0]!, { ...now.outputs[1]!, id: 'q', name: 'Speakers' }],
      inputs: [{ ...now.inputs[0]!, sampleRateHz: 44_100 }],
    };
    expect(said(other)).toEqual([
      'The output “Cable A in” is gone.',
      'The output “Speakers” is new.',
      'The input “Headset mic” is gone.',
      '“Mixer” runs at 44.1 kHz. It was 48 kHz.',
    ]);
  });
  it('is held against what this browser keeps, without what is only drawn', () => {
    expect(readReference(RIG_ID)).toBeNull();
    const kept = Scan.parse(made([link()]));
    expect(kept.links[0]).not.toHaveProperty('responseDb');
    expect(keepReference(RIG_ID, kept)).toBe(true);
    expect(readReference(RIG_ID)).toEqual(kept);
    localStorage.setItem(`mellow.scan.${RIG_ID}`, '{"links":3}');
    expect(readReference(RIG_ID)).toBeNull();
  });
});

describe('the page of a scan', () => {
  const at = `/rigs/${RIG_ID}/scan`;
  it('says what works in a browser that can’t choose outputs', () => {
    show(page, { at });
    expect(screen.getByText(/This browser can’t choose audio outputs/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'tap test' }).getAttribute('href')).toBe(`/rigs/${RIG_ID}/tap`);
    expect(screen.queryByRole('button', { name: /^Scan/ })).toBeNull();
  });
  it('plays nothing while a question of its gate is open', async () => {
    vi.stubGlobal(
      'AudioContext',
      class {
        setSinkId() {}
      },
    );
    vi.stubGlobal('MediaStreamTrackProcessor', class {});
    const user = userEvent.setup();
    show(page, { at });
    const button = screen.getByRole('button', { name: /^Scan/ });
    expect(button.getAttribute('title')).toBe('Confirm everything above first');
    for (const box of screen.getAllByRole('checkbox')) await user.click(box);
    expect(button.getAttribute('aria-disabled')).toBeNull();
  });
});
