import { useMemo } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import { findDevice } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { hueOf } from '#web/shared/parts/index.ts';
import { wire as say } from '#words/index.ts';
import { sayLine } from './drawn.ts';
import { BoxMark, LineMark } from './marks.tsx';
import { useLineMap } from './useLineMap.ts';

const nothing = () => undefined;
const OPEN: ReadonlySet<string> = new Set();

/** The line map as a picture alone, as large as its place: to look at what would be made. */
export function MapPicture({ rig, evaluation }: { rig: Rig; evaluation: Evaluation }) {
  const { map } = useLineMap(rig, evaluation, 'all', OPEN);
  const hues = useMemo(() => new Map(rig.sources.map((s) => [s.id, hueOf(s)])), [rig.sources]);
  const cables = useMemo(() => new Map(rig.cables.map((c) => [c.id, c])), [rig.cables]);
  if (!map) return null;
  const { widthPx, heightPx } = map.drawing;
  return (
    <svg
      className="map-picture"
      viewBox={`-8 -8 ${widthPx + 16} ${heightPx + 16}`}
      role="img"
      aria-label={say.signalMapDevice({ rig: rig.name, devices: rig.devices.length })}
      style={{ maxWidth: widthPx + 16 }}
    >
      {map.lines.map((line) => (
        <LineMark
          key={line.id}
          hues={hues}
          said={sayLine(rig, line)}
          cable={cables.get(line.cableIds[0] ?? '')}
          line={line}
          points={map.drawing.wires.get(line.id)!}
          tapped={false}
          dim={false}
          marked={false}
          onTap={nothing}
        />
      ))}
      {map.boxes.map((box) => (
        <BoxMark
          key={box.deviceId}
          sources={rig.sources}
          listeners={rig.listeners}
          host={box.on ? (findDevice(rig, box.on)?.name ?? null) : null}
          box={box}
          at={map.drawing.boxes.get(box.deviceId)!}
          tapped={false}
          onTap={nothing}
          onFold={nothing}
        />
      ))}
    </svg>
  );
}
