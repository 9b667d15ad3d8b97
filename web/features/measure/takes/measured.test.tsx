// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Diagnosis, Fault } from '#core/audio/measure/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { aTask, someWork } from '#web/shared/jobs/jobs.testkit.ts';
import { TARGETS } from '#web/shared/take/index.ts';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { takes as say } from '#words/index.ts';
import { restingTake } from './bench.testkit.ts';
import { guessListener } from './fault-names.ts';
import { Measured } from './TakeMeasured.tsx';
import type { Diagnosed } from './useDiagnosis.ts';

beforeEach(() => stubServer(noServer));

const fault = (more: Partial<Fault> & Pick<Fault, 'id'>): Fault => ({
  severity: 'fix',
  evidence: 'so it shows',
  atS: [],
  channel: null,
  ...more,
});
const diagnosisWith = (faults: readonly Fault[], integratedLufs: number | null = -24): Diagnosis => ({
  faults,
  levels: {
    integratedLufs,
    rangeLu: 5,
    maxMomentaryLufs: -18,
    maxShortTermLufs: -20.5,
    truePeakDbtp: -6,
    samplePeakDbfs: -6.3,
  },
  curves: { momentaryLufs: new Float64Array(46).fill(-24), shortTermLufs: new Float64Array(20).fill(-24) },
  floors: [{ floorDbfs: -63.2, programmeDbfs: -20, restPart: 0.3, bandHz: [1000, 14_000] }],
  spectra: [],
});
const idle: Diagnosed = { diagnosis: null, work: someWork() };

function open(diagnosed: Partial<Diagnosed>, inRig = true) {
  const rig = demoRig();
  const onSee = vi.fn();
  const page = show(
    <Measured
      take={restingTake('a', { name: 'host, backup recorder.wav' })}
      named={false}
      rigId={inRig ? RIG_ID : null}
      rig={inRig ? rig : null}
      evaluation={inRig ? evaluate(rig) : null}
      view={{ startMs: 0, msPerPx: 10 }}
      widthPx={500}
      shiftMs={250}
      onSee={onSee}
      diagnosed={{ ...idle, ...diagnosed }}
    />,
    { rig },
  );
  return { ...page, onSee, user: userEvent.setup() };
}

describe('a take measured', () => {
  it('tells its figures against the target, and what peaks forbid', async () => {
    const { user } = open({ diagnosis: diagnosisWith([]) });
    const levels = screen.getByTestId('levels');
    expect(within(levels).getByText('−24.0 LUFS')).toBeTruthy();
    expect(within(levels).getByText('−63.2 dBFS')).toBeTruthy();
    expect(
      screen.getByText(
        /^8\.0 LU below −16 LUFS; −17 to −15 is within tolerance\. Turn it up by 8\.0 dB\. Peaks would then reach 3\.0 dB above/,
      ),
    ).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('Target'), 'broadcast');
    expect(
      screen.getByText(/^1\.0 LU below −23 LUFS; −23\.5 to −22\.5 is within tolerance\. Turn it up by 1\.0 dB\.$/),
    ).toBeTruthy();
    expect(screen.getByText(/No hum, hiss, clipping, echo or dropouts found,/)).toBeTruthy();
    expect(screen.getByRole('img', { name: 'Loudness over time' })).toBeTruthy();
  });
  it('shows what is wrong, goes there, and names what in the rig could have made it', async () => {
    const faults = [fault({ id: 'hum-50' }), fault({ id: 'clipping', severity: 'watch', atS: [1.25, 3.5] })];
    const { user, onSee } = open({ diagnosis: diagnosisWith(faults) });
    const table = screen.getByTestId('faults');
    expect(within(table).getByText('Hum, 50 Hz')).toBeTruthy();
    await user.click(within(table).getByRole('button', { name: '00:03.50' }));
    // On the common axis: the take lies a quarter of a second later.
    expect(onSee).toHaveBeenCalledWith(3750);
    const places = within(table)
      .getAllByRole('link')
      .map((l) => l.getAttribute('href')!);
    expect(places.length).toBeGreaterThan(1);
    for (const href of places) expect(href).toMatch(new RegExp(`^/rigs/${RIG_ID}/wire\\?tap=[a-z0-9-]+\\.[a-z0-9-]+$`));
    const chosen = screen.getByLabelText(/was recorded$/) as HTMLSelectElement;
    expect(chosen.value).toBe('backup');
    const before = places.join();
    await user.selectOptions(chosen, 'ilse');
    const after = within(table)
      .getAllByRole('link')
      .map((l) => l.getAttribute('href')!);
    expect(after.join()).not.toBe(before);
  });
  it('needs no rig, and says what a worker does and why it ended', async () => {
    open({ diagnosis: diagnosisWith([fault({ id: 'silent' })], null) }, false);
    expect(screen.getByText(say.tooShortOrToo())).toBeTruthy();
    expect(screen.queryByText(/Recorded at/)).toBeNull();
  });
  it('shows progress with a stop, and what failed with a way on', async () => {
    const stop = vi.fn();
    const { user } = open({ work: someWork({ task: aTask({ done: 0.42 }), stop }) });
    expect(screen.getByRole('status').textContent).toBe('Measuring: 42%');
    await user.click(screen.getByRole('button', { name: 'Stop' }));
    expect(stop).toHaveBeenCalled();
  });
  it('knows the listener by the take’s name, and its targets by their order', () => {
    expect(guessListener('relay talk, track 4.wav', demoRig())).toBe('track-4');
    expect(guessListener('something.wav', demoRig())).toBe(demoRig().listeners[0]!.id);
    for (const { range } of TARGETS) expect(range[0]).toBeLessThan(range[1]);
  });
});
