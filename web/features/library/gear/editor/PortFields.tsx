import { Button, chakra, Input } from '@chakra-ui/react';
import { CONNECTORS, UNPLUGGED } from '#core/model/plug/index.ts';
import type { DeviceType, LevelClass, PortSpec } from '#core/model/rig/index.ts';
import { Choice, Table } from '#web/shared/parts/index.ts';
import { common, gear as say, textOf } from '#words/index.ts';
import { freeName } from './names.ts';

const LEVELS: readonly LevelClass[] = [
  'air',
  'microphone',
  'line',
  'headphone',
  'speaker',
  'digital',
  'software',
  'light',
];
const CONNECTOR_OPTIONS = [
  ...CONNECTORS.map((c) => [c.id, textOf(c.name)] as const),
  ...[...UNPLUGGED].map((id) => [id, id] as const),
];
const withOwn = (connector: string) =>
  CONNECTOR_OPTIONS.some(([id]) => id === connector)
    ? CONNECTOR_OPTIONS
    : [[connector, say.unknown({ connector })] as const, ...CONNECTOR_OPTIONS];

interface Props {
  readonly draft: DeviceType;
  readonly onDraft: (draft: DeviceType) => void;
}

/** Sockets and ends, by fields. */
export function PortFields({ draft, onDraft }: Props) {
  const setPort = (at: number, change: Partial<PortSpec>) =>
    onDraft({ ...draft, ports: draft.ports.map((p, i) => (i === at ? { ...p, ...change } : p)) });
  return (
    <>
      <h2>{say.sockets()}</h2>
      <Table tight aria-label={say.sockets()}>
        <tbody>
          {draft.ports.map((p, i) => (
            <tr key={p.id}>
              <td>
                <Input
                  aria-label={say.namePort({ id: p.id })}
                  value={p.name}
                  onChange={(e) => setPort(i, { name: e.target.value })}
                />
              </td>
              <td className="quiet">{say.directionOf({ direction: p.direction })}</td>
              <td>
                <Choice
                  label={say.connectorWith({ id: p.id })}
                  value={p.connector}
                  options={withOwn(p.connector)}
                  onChange={(connector) => setPort(i, { connector })}
                />
              </td>
              <td>
                <Choice
                  label={say.level({ id: p.id })}
                  value={p.level}
                  options={LEVELS.map((level) => [level, say.levelOf({ level })] as const)}
                  onChange={(level) => setPort(i, { level: level as LevelClass })}
                />
              </td>
              <td className="number">
                <Button onClick={() => onDraft({ ...draft, ports: draft.ports.filter((_, k) => k !== i) })}>
                  {common.remove()}
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <chakra.p className="row" marginTop="6px">
        {(['in', 'out'] as const).map((direction) => (
          <Button
            key={direction}
            onClick={() => onDraft({ ...draft, ports: [...draft.ports, newPort(draft, direction)] })}
          >
            {say.addPut({ direction })}
          </Button>
        ))}
      </chakra.p>
    </>
  );
}

function newPort({ ports }: DeviceType, direction: 'in' | 'out'): PortSpec {
  const id = freeName(direction, new Set(ports.map((p) => p.id)));
  return {
    id,
    name: id.replace('-', ' '),
    direction,
    connector: 'jack-35-trs',
    level: 'line',
    channels: [
      { id: 'left', carries: 'sound' },
      { id: 'right', carries: 'sound' },
    ],
  };
}
