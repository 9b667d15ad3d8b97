// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { scanOf } from '#core/desk-tests/drawn/drawn.testkit.ts';
import { type Bindings, explainScan } from '#core/desk-tests/drawn/index.ts';
import type { Disagreement } from '#core/desk-tests/tap-test/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { selectRig, useAppSelector } from '#web/shared/store/index.ts';
import { RIG_ID, show } from '#web/web.testkit.tsx';
import { AgainstDrawing } from './AgainstDrawing.tsx';
import type { ScanMade } from './engine.ts';
import { Matrix } from './Matrix.tsx';
import { sayDifference } from './say.ts';
import { useDrawing } from './useDrawing.ts';

vi.mock('#web/shared/workers/index.ts', async (original) => ({
  ...(await original<object>()),
  explainScanAt: (rig: Rig, scan: ScanMade, bindings: Bindings) => ({
    result: Promise.resolve(explainScan(rig, scan, bindings)),
    stop: () => undefined,
  }),
}));

const glider = parseRig(JSON.parse(JSON.stringify(gliderCorner)));
const asDrawn = scanOf(glider, 'computer').scan;
const made = (more: Partial<ScanMade> = {}): ScanMade => ({
  ...asDrawn,
  links: asDrawn.links.map((l) => ({ ...l, responseDb: [] })),
  hasLost: false,
  skipped: [],
  ...more,
});
const chosen = vi.fn();

function Desk({ scan }: { scan: ScanMade }) {
  const rig = useAppSelector(selectRig)!;
  const drawing = useDrawing(RIG_ID, rig, scan);
  return drawing ? (
    <>
      <Matrix scan={scan} changed={new Set()} drawing={drawing} chosen={undefined} onChoose={chosen} />
      <AgainstDrawing rigId={RIG_ID} rig={rig} made={scan} drawing={drawing} onChoose={chosen} />
    </>
  ) : (
    <p>nothing to hold</p>
  );
}
const shown = (scan: ScanMade) => show(<Desk scan={scan} />, { rig: glider });
const section = () => screen.getByRole('region', { name: 'Against the drawing' });

beforeEach(() => {
  stubServer(noServer);
  localStorage.clear();
});

describe('a scan against the drawing', () => {
  it('says that all is as drawn, offers what it measured, and takes that in once', async () => {
    const user = userEvent.setup();
    shown(made());
    expect(within(section()).getByRole('heading', { name: 'The path found is as drawn' })).toBeTruthy();
    expect(screen.getAllByTitle('As drawn.').length).toBeGreaterThan(0);
    expect(screen.queryByRole('button', { name: /^Find the cause/ })).toBeNull();
    await user.click(screen.getByRole('button', { name: /^Add to rig: Chat cable → Chat cable/ }));
    expect(screen.queryByRole('button', { name: /^Add to rig/ })).toBeNull();
  });
  it('says what was not found, finds what explains it, and draws that', async () => {
    const user = userEvent.setup();
    shown(made({ links: [] }));
    expect(within(section()).getByRole('heading', { name: '1 path differs from the drawing' })).toBeTruthy();
    expect(screen.getByText('drawn, not found')).toBeTruthy();
    await user.click(
      screen.getByRole('button', { name: /“Chat cable” should arrive at “Chat cable” as drawn, and was not found/ }),
    );
    expect(chosen).toHaveBeenCalledOnce();
    await user.keyboard('f');
    expect(await screen.findByText(/“Chat cable” isn’t running or has frozen/)).toBeTruthy();
    expect(screen.getByText(/^Explains/)).toBeTruthy();
  });
  it('offers devices that are not in the drawing, and asks which is which', async () => {
    const user = userEvent.setup();
    const [first, ...others] = asDrawn.outputs;
    shown(made({ outputs: [...others, { ...first!, id: 'radio', name: 'Kitchen radio' }, first!] }));
    await user.click(screen.getByRole('button', { name: 'Add 1 device to the drawing' }));
    expect(screen.queryByText(/^This device isn’t in the drawing/)).toBeNull();
    await user.click(screen.getByText(/^Which device is which/));
    const radio = screen.getByRole('combobox', { name: 'Output “Kitchen radio” in the drawing' });
    expect((radio as HTMLSelectElement).selectedOptions[0]!.textContent).toBe('Kitchen radio');
    const cable = screen.getByRole('combobox', { name: 'Output “Chat cable” in the drawing' });
    await user.selectOptions(cable, 'none of them');
    expect(within(section()).getByRole('heading', { name: 'Nothing found is in the drawing' })).toBeTruthy();
  });
  it('is not held where audio was lost', () => {
    shown(made({ hasLost: true }));
    expect(screen.getByText('nothing to hold')).toBeTruthy();
  });
});

describe('what differs from the drawing', () => {
  const rig = {
    ...glider,
    sources: [{ ...glider.sources[0]!, id: 'o', name: 'Out' }],
    listeners: [{ ...glider.listeners[0]!, id: 'i', name: 'In' }],
  };
  it.each<[Disagreement, string]>([
    [{ kind: 'hardly', weight: 1 }, '“Out” should arrive at “In” as drawn, and was not found there.'],
    [{ kind: 'extra', weight: 1 }, '“Out” arrives at “In” after 120.0 ms. Nothing in the drawing does that.'],
    [
      { kind: 'twice', weight: 1, afterMs: -80, underDb: 8 },
      '“Out” arrives at “In” twice, again 80.0 ms earlier. The drawing has it once.',
    ],
    [{ kind: 'once', weight: 1, afterMs: 80 }, '“Out” arrives at “In” once. The drawing has it twice, 80.0 ms apart.'],
    [{ kind: 'upside-down', weight: 1 }, '“Out” arrives at “In” with the opposite polarity to the drawing.'],
    [{ kind: 'level', weight: 1, db: 12 }, '“Out” arrives at “In” 12.0 dB louder than drawn.'],
    [{ kind: 'level', weight: 1, db: -12 }, '“Out” arrives at “In” 12.0 dB quieter than drawn.'],
    [{ kind: 'late', weight: 1, ms: 43 }, '“Out” arrives at “In” 43.0 ms later than drawn.'],
    [{ kind: 'late', weight: 1, ms: -43 }, '“Out” arrives at “In” 43.0 ms earlier than drawn.'],
    [
      { kind: 'band', weight: 1, highHz: 3400 },
      '“Out” arrives at “In” up to 3400 Hz. The drawing has another frequency range.',
    ],
    [{ kind: 'clock', weight: 1, ppm: -30 }, '“Out” at “In”: the clocks differ by −30.0 ppm more than drawn.'],
    [{ kind: 'jump', weight: 1, ms: 4 }, '“Out” arrives at “In” with a delay that moves.'],
  ])('is said in a sentence: %o', (difference, says) => {
    const at = { sourceId: 'o', listenerId: 'i', read: { heard: { atMs: 120 } } };
    expect(sayDifference(rig, at, difference)).toBe(says);
  });
});
