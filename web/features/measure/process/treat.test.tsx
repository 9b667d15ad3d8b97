// @vitest-environment happy-dom
import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { highPass, responseDb, staticGainDb, type Treatment } from '#core/audio/process/index.ts';
import { layoutResponse, layoutStatic } from '#web/shared/charts/index.ts';
import { keepTreatment, readTreatment } from '#web/shared/take/index.ts';
import { show } from '#web/web.testkit.tsx';
import { process as say } from '#words/index.ts';
import { StepList } from './StepList.tsx';
import { DEFAULTS, STEPS, withField, withStep } from './setup.ts';

const all: Treatment = { ...DEFAULTS, makeupDb: 0 };
const none: Treatment = {
  lowCut: null,
  gate: null,
  presence: null,
  deEss: null,
  compressor: null,
  makeupDb: 0,
  limiter: null,
};

describe('the steps of a treatment', () => {
  it('have a field for each of their figures, and begin within what may be typed', () => {
    for (const { id, fields } of STEPS) {
      const values = DEFAULTS[id] as unknown as Record<string, number>;
      expect(fields.map((f) => f.key).sort()).toEqual(Object.keys(values).sort());
      for (const f of fields) {
        expect(values[f.key]!).toBeGreaterThanOrEqual(f.min);
        expect(values[f.key]!).toBeLessThanOrEqual(f.max);
      }
    }
  });
  it('come back as they were set when they are taken in again', () => {
    const set = withField(all, 'gate', 'rangeDb', 17);
    const out = withStep(set, 'gate', false, set);
    expect(out.gate).toBeNull();
    expect(withStep(out, 'gate', true, set).gate).toEqual({ ...DEFAULTS.gate, rangeDb: 17 });
    expect(withStep(none, 'limiter', true, none).limiter).toEqual(DEFAULTS.limiter);
  });
  it('are sentences with figures that can be changed', async () => {
    const said: unknown[] = [];
    show(
      <StepList
        treatment={withStep(all, 'deEss', false, all)}
        onStep={(...step) => said.push(step)}
        onField={(...field) => said.push(field)}
        onMakeup={(db) => said.push(db)}
      />,
    );
    expect(screen.getAllByText(say.off())).toHaveLength(1);
    await userEvent.click(screen.getByRole('checkbox', { name: 'De-esser' }));
    const ratio = screen.getByLabelText('Compressor, ratio, to 1');
    fireEvent.change(ratio, { target: { value: '0.5' } });
    fireEvent.blur(ratio);
    expect(ratio.getAttribute('aria-invalid')).toBe('true');
    fireEvent.change(ratio, { target: { value: '4' } });
    fireEvent.blur(ratio);
    const makeup = screen.getByLabelText('Make-up gain, dB');
    fireEvent.change(makeup, { target: { value: '−2' } });
    fireEvent.blur(makeup);
    expect(said).toEqual([['deEss', true], ['compressor', 'ratio', 4], -2]);
  });
  it('are kept for their take, and nothing else is taken for them', () => {
    keepTreatment(['x'], all);
    expect(readTreatment(['x'])).toEqual(all);
    localStorage.setItem('mellow-tap.treatment.x', JSON.stringify({ ...all, lowCut: { hz: -3 } }));
    expect(readTreatment(['x'])).toBeNull();
  });
});

const pointsOf = (path: string): [number, number][] =>
  [...path.matchAll(/(-?[\d.]+),(-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);

describe('their curves', () => {
  it('stand where the formulas put them', () => {
    const sections = [highPass(200, 48_000)];
    const { path, xTicks, yTicks, zeroPx } = layoutResponse((hz) => responseDb(sections, hz, 48_000), 48_000);
    const points = pointsOf(path);
    const at = (label: string) => {
      const { px } = xTicks.find((t) => t.label === label)!;
      return points.reduce((a, b) => (Math.abs(b[0] - px) < Math.abs(a[0] - px) ? b : a))[1];
    };
    const six = yTicks.find((t) => t.db === -6)!.px - zeroPx;
    expect(at('200')).toBeCloseTo(zeroPx + six / 2, -0.5);
    expect(at('5k')).toBeCloseTo(zeroPx, 0);
    // Nothing is drawn beyond what the rate can hold.
    const low = layoutResponse(() => 0, 8000);
    expect(Math.max(...pointsOf(low.path).map(([x]) => x))).toBeLessThan(low.xTicks.find((t) => t.label === '5k')!.px);
  });
  it('mark where the voice comes out', () => {
    const { compressor } = DEFAULTS;
    const { marks, yTicks, xTicks } = layoutStatic((db) => db + staticGainDb(db, compressor), [-10]);
    expect(marks[0]!.px).toBeCloseTo(xTicks.find((t) => t.label === '−10')!.px, 6);
    // 14 dB over the threshold, two thirds of it taken off.
    const scale = (yTicks[1]!.px - yTicks[0]!.px) / 10;
    expect(marks[0]!.py).toBeCloseTo(yTicks.find((t) => t.db === -20)!.px + scale * (0.7 - 0), 0);
  });
});
