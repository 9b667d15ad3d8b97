import { range } from 'd3-array';
import type { ReactNode } from 'react';

/** What is behind a door of the first page, drawn small; the words beside it say the same. */
export type DoorPictureOf = 'file' | 'desk' | 'demo';

export const DoorPicture = ({ of }: { of: DoorPictureOf }) => (
  <svg className="door-picture" viewBox="0 0 240 84" aria-hidden="true">
    {PICTURES[of]}
  </svg>
);

/** A clap in two recordings: bars by their height, the loudest of the second one later. */
const CLAP = [3, 5, 4, 6, 3, 4, 30, 22, 13, 9, 6, 4, 3, 4, 3];
const BAR_STEP = 9;
const LATE = 3;
const bars = (y: number, late: number) => (
  <path
    strokeWidth="3.4"
    d={range(23)
      .map((i) => ({ x: 22 + i * BAR_STEP, height: CLAP[i - 2 - late] ?? 2 + ((i * 7) % 3) }))
      .map(({ x, height }) => `M${x} ${y - height / 2}v${height}`)
      .join('')}
  />
);
const clapX = (late: number): number => 22 + (8 + late) * BAR_STEP;

const BOX = { width: 48, height: 20 };
const box = (x: number, y: number, kind = '') => (
  <rect key={`${x} ${y}`} x={x} y={y} {...BOX} className={`door-box ${kind}`} />
);

const PICTURES: Record<DoorPictureOf, ReactNode> = {
  file: (
    <>
      <rect x={clapX(0) - 6} y="6" width="12" height="72" className="door-mark" />
      {bars(24, 0)}
      {bars(60, LATE)}
      <path d={`M${clapX(0)} 42H${clapX(LATE)}`} strokeWidth="1.4" />
      <path d={`M${clapX(0)} 37v10M${clapX(LATE)} 37v10`} strokeWidth="1.4" />
    </>
  ),
  desk: (
    <>
      <path d="M14 14h92M14 28h70M14 42h84M14 56h48" strokeWidth="2.6" className="door-text" />
      <path d="M66 51v10" strokeWidth="1.6" />
      <path d="M112 36h18m-5 -5l5 5l-5 5" strokeWidth="1.6" />
      <path d="M188 24v8h-26v10M188 24v8h26v10" strokeWidth="1.6" />
      {box(164, 4)}
      {box(138, 42)}
      {box(190, 42, 'door-mark')}
    </>
  ),
  demo: (
    <>
      <path d="M60 18h32M60 60h32M140 18h20v20h22M140 60h20v-14h22" strokeWidth="1.8" />
      <path d="M140 66h76v-10" strokeWidth="1.4" strokeDasharray="3 4" />
      {box(12, 8)}
      {box(12, 50)}
      {box(92, 8)}
      {box(92, 50, 'door-mark')}
      {box(182, 32)}
      <circle cx="76" cy="18" r="7" className="door-stop" />
      <circle cx="76" cy="60" r="7" className="door-fix" />
    </>
  ),
};
