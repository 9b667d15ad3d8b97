import { useEffect, useRef } from 'react';
import type { Slate } from '#core/desk-tests/slates/index.ts';
import { rateName } from '#core/model/units/index.ts';
import { players as say } from '#words/index.ts';
import { paintSlate } from './paint.ts';

/** A picture that is drawn now is on the screen about one refresh later. */
const REFRESHES_AHEAD = 1;
const USUAL_REFRESH_MS = 1000 / 60;

interface Props {
  readonly slate: Slate;
  /** What is written beside it. */
  readonly words: readonly string[];
  /** Returns the frame for a time; null while nothing plays. */
  readonly player: { frameAt(performanceMs: number): number } | null;
}

/** The canvas, as large as its room and as fine as its screen; drawn again at each refresh while it plays. */
export function SlateCanvas({ slate, words, player }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const paper = canvas.current!;
    const paint = paper.getContext('2d', { alpha: false });
    if (!paint) return;
    let refreshMs = USUAL_REFRESH_MS;
    let lastMs = 0;
    let drawn = -1;
    let asked = 0;
    const draw = (nowMs: number) => {
      if (lastMs > 0 && nowMs > lastMs) refreshMs += (Math.min(50, nowMs - lastMs) - refreshMs) / 16;
      lastMs = nowMs;
      const [width, height] = [paper.clientWidth, paper.clientHeight].map((px) =>
        Math.round(px * devicePixelRatio),
      ) as [number, number];
      const resized = paper.width !== width || paper.height !== height;
      if (resized) {
        paper.width = width;
        paper.height = height;
      }
      const frame = player ? player.frameAt(nowMs + REFRESHES_AHEAD * refreshMs) : 0;
      if (resized || frame !== drawn) paintSlate(paint, width, height, slate, frame, words);
      drawn = frame;
      asked = requestAnimationFrame(draw);
    };
    asked = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(asked);
  }, [slate, words, player]);
  return <canvas ref={canvas} aria-label={say.syncSlateAtFps({ n1: slate.id + 1, rate: rateName(slate.rate) })} />;
}
