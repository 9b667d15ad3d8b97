import { chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { connectorOf } from '#core/model/plug/index.ts';
import type { DeviceType } from '#core/model/rig/index.ts';
import { Head, LineButton, Table } from '#web/shared/parts/index.ts';
import { gear as say, textOf } from '#words/index.ts';
import { drawInside } from './inside.ts';

const MAX_PORTS = 60;

/** What is inside a device, drawn from its data: ports on their sides, the ways between them, each asked what it does. */
export function InsideMap({ type }: { type: DeviceType }) {
  const { ways, drawing } = useMemo(() => drawInside(type), [type]);
  const [chosen, setChosen] = useState<string | null>(null);
  const way = ways.find((w) => w.id === chosen) ?? null;
  const name = (id: string) => type.ports.find((p) => p.id === id)?.name ?? id;
  if (type.ports.length === 0) return <p className="quiet">{say.itHasNoSignal()}</p>;
  return (
    <>
      <chakra.div className="map" overflow="auto" maxHeight="420px">
        <svg
          width={drawing.widthPx + 24}
          height={drawing.heightPx + 24}
          role="img"
          aria-label={say.inside({ type: type.name })}
        >
          <title>{say.inside({ type: type.name })}</title>
          <g transform="translate(12 12)">
            {ways.map((w) => (
              <polyline
                key={w.id}
                points={drawing.wires
                  .get(w.id)!
                  .map((p) => p.join())
                  .join(' ')}
                fill="none"
                stroke={w.id === chosen ? 'var(--ink)' : 'var(--rule2)'}
                strokeWidth={w.id === chosen ? 3 : 1.3}
                strokeDasharray={w.picture ? '5 3' : undefined}
              />
            ))}
            {type.ports.map((p) => {
              const at = drawing.boxes.get(p.id)!;
              return (
                <g key={p.id} transform={`translate(${at.xPx} ${at.yPx})`}>
                  <title>
                    {say.values({
                      p: p.name,
                      connector: textOf(connectorOf(p.connector)?.name ?? p.connector),
                      level: say.levelOf({ level: p.level }),
                    })}
                  </title>
                  <rect
                    width={at.widthPx}
                    height={at.heightPx}
                    fill="var(--paper)"
                    stroke="var(--rule2)"
                    strokeDasharray={p.direction === 'inside' ? '3 2' : undefined}
                  />
                  <text x={8} y={20} fontSize="12.5" fill="var(--ink)">
                    {p.name.length > 22 ? `${p.name.slice(0, 21)}…` : p.name}
                  </text>
                </g>
              );
            })}
          </g>
        </svg>
      </chakra.div>
      {ways.length > 0 && (
        <Table tight aria-label={say.pathsInside()} marginTop="8px">
          <Head columns={[say.from(), say.to(), say.stages()]} />
          <tbody>
            {ways.slice(0, MAX_PORTS).map((w) => (
              <tr key={w.id} aria-selected={w === way}>
                <td>
                  <LineButton onClick={() => setChosen(w.id === chosen ? null : w.id)}>{name(w.from)}</LineButton>
                </td>
                <td>{name(w.to)}</td>
                <td className="quiet small">{w.stages.join('; ') || say.straightThrough()}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {ways.length > MAX_PORTS && (
        <p className="small quiet">{say.morePathsAreIn({ MAX_PORTS: ways.length - MAX_PORTS })}</p>
      )}
    </>
  );
}
