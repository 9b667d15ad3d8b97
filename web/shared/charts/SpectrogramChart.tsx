import { useEffect, useRef } from 'react';
import type { Spectrogram } from '#core/audio/measure/index.ts';
import { charts as say } from '#words/index.ts';
import { type LaneView, pxOf } from './lane-layout.ts';
import { shade } from './spectra.ts';

interface Props {
  readonly spectrogram: Spectrogram | null;
  readonly view: LaneView;
  readonly widthPx: number;
  readonly shiftMs: number;
  readonly label: string;
}

const HEIGHT = 120;
const HZ_TICKS = [100, 1000, 10_000];

/** Pitches along the time of the lanes. While a new stretch is worked out, the last one goes along with the view. */
export function SpectrogramChart({ spectrogram, view, widthPx, shiftMs, label }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current;
    const context = element?.getContext('2d');
    if (!element || !context || !spectrogram) return;
    const { columns, rows } = spectrogram;
    element.width = columns;
    element.height = rows;
    const image = context.createImageData(columns, rows);
    image.data.set(shade(spectrogram, inkOf(element)));
    context.putImageData(image, 0, 0);
  }, [spectrogram]);
  const from = spectrogram ? pxOf(view, 1000 * spectrogram.fromS + shiftMs) : 0;
  const to = spectrogram ? pxOf(view, 1000 * spectrogram.toS + shiftMs) : 0;
  return (
    <div style={{ position: 'relative', width: widthPx, height: HEIGHT, overflow: 'hidden' }}>
      <canvas
        ref={canvas}
        role="img"
        aria-label={label}
        style={{ position: 'absolute', left: from, width: Math.max(1, to - from), top: 0, height: HEIGHT }}
      />
      <svg
        width={widthPx}
        height={HEIGHT}
        aria-hidden
        style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
      >
        {spectrogram &&
          HZ_TICKS.filter((hz) => hz < spectrogram.highHz).map((hz) => {
            const { lowHz, highHz } = spectrogram;
            const y = HEIGHT * (1 - Math.log(hz / lowHz) / Math.log(highHz / lowHz));
            return (
              <text
                key={hz}
                x={2}
                y={y + 4}
                className="small"
                fill="var(--ink)"
                stroke="var(--paper)"
                strokeWidth={3}
                paintOrder="stroke"
              >
                {hz >= 1000 ? say.khz({ n1000: hz / 1000 }) : say.hz({ hz })}
              </text>
            );
          })}
      </svg>
    </div>
  );
}

/** The ink of the page, as the browser has worked it out: light on dark, or dark on light. */
function inkOf(element: Element): number[] {
  const { color } = getComputedStyle(element);
  return (/\d+(\.\d+)?/g[Symbol.match](color) ?? ['0', '0', '0']).slice(0, 3).map(Number);
}
