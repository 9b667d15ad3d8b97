import { Button, Input } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { readGear } from '#core/check/index.ts';
import { CONNECTORS, UNPLUGGED } from '#core/plug/index.ts';
import type { DeviceType, LevelClass, PortSpec } from '#core/rig/index.ts';
import { Choice, StateMark } from '#web/parts/index.ts';

interface Props {
  readonly type: DeviceType;
  readonly onSave: (type: DeviceType) => void;
  readonly onCancel: () => void;
}

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
  ...CONNECTORS.map((c) => [c.id, c.name] as const),
  ...[...UNPLUGGED].map((id) => [id, id] as const),
];

/** A type of one's own: name, price and sockets by fields, the inside as text; checked while one writes. */
export function TypeEditor({ type, onSave, onCancel }: Props) {
  const [draft, setDraft] = useState(type);
  const [inside, setInside] = useState(() => JSON.stringify(type.inside, null, 1));
  const read = useMemo(() => {
    try {
      return readGear(JSON.stringify({ ...draft, inside: JSON.parse(inside) }));
    } catch {
      return {
        ok: false as const,
        faults: [{ path: 'inside', says: 'The inside is not JSON: look for a comma or a bracket.' }],
      };
    }
  }, [draft, inside]);
  const setPort = (at: number, change: Partial<PortSpec>) =>
    setDraft({ ...draft, ports: draft.ports.map((p, i) => (i === at ? { ...p, ...change } : p)) });
  const price = draft.priceEur ?? [0, 0];
  return (
    <>
      <div className="spread">
        <h1>{type.name}</h1>
        <span className="row">
          <Button variant="solid" disabled={!read.ok} onClick={() => read.ok && onSave(read.type)}>
            Keep it
          </Button>
          <Button onClick={onCancel}>Leave it</Button>
        </span>
      </div>
      <div aria-live="polite">
        {read.ok ? (
          <p className="good">
            <StateMark state="good" /> It can be used like a built-in one.
          </p>
        ) : (
          read.faults.map((f) => (
            <p key={f.path + f.says} className="fix">
              <StateMark state="fix" /> {f.path && `${f.path}: `}
              {f.says}
            </p>
          ))
        )}
      </div>
      <p className="row" style={{ marginTop: 10 }}>
        <Input
          aria-label="Name of the type"
          width="320px"
          value={draft.name}
          maxLength={120}
          onChange={(e) => setDraft({ ...draft, name: e.target.value })}
        />
        {[0, 1].map((i) => (
          <Input
            key={i}
            aria-label={i === 0 ? 'Price from, euros' : 'Price to, euros'}
            type="number"
            width="90px"
            value={price[i]}
            onChange={(e) => {
              const next: [number, number] = [...price] as [number, number];
              next[i] = Number(e.target.value);
              setDraft({ ...draft, priceEur: next });
            }}
          />
        ))}
        <span className="quiet">euros</span>
      </p>
      <Input
        aria-label="Summary"
        width="100%"
        style={{ marginTop: 8 }}
        value={draft.summary}
        onChange={(e) => setDraft({ ...draft, summary: e.target.value })}
      />
      <h2>Sockets and ends</h2>
      <table className="table tight" aria-label="Sockets and ends">
        <tbody>
          {draft.ports.map((p, i) => (
            <tr key={p.id}>
              <td>
                <Input
                  aria-label={`Name of port ${p.id}`}
                  value={p.name}
                  onChange={(e) => setPort(i, { name: e.target.value })}
                />
              </td>
              <td className="quiet">{p.direction}</td>
              <td>
                <Choice
                  label={`Connector of ${p.id}`}
                  value={p.connector}
                  options={withOwn(p.connector)}
                  onChange={(connector) => setPort(i, { connector })}
                />
              </td>
              <td>
                <Choice
                  label={`Level of ${p.id}`}
                  value={p.level}
                  options={LEVELS.map((l) => [l, l] as const)}
                  onChange={(level) => setPort(i, { level: level as LevelClass })}
                />
              </td>
              <td className="number">
                <Button onClick={() => setDraft({ ...draft, ports: draft.ports.filter((_, k) => k !== i) })}>
                  Take out
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="row" style={{ marginTop: 6 }}>
        {(['in', 'out'] as const).map((direction) => (
          <Button
            key={direction}
            onClick={() => setDraft({ ...draft, ports: [...draft.ports, newPort(draft, direction)] })}
          >
            Add an {direction}put
          </Button>
        ))}
      </p>
      <h2>Inside</h2>
      <textarea
        aria-label="Inside, as JSON"
        spellCheck={false}
        rows={16}
        className="code"
        value={inside}
        onChange={(e) => setInside(e.target.value)}
      />
    </>
  );
}

const withOwn = (connector: string) =>
  CONNECTOR_OPTIONS.some(([id]) => id === connector)
    ? CONNECTOR_OPTIONS
    : [[connector, `${connector} (not known)`] as const, ...CONNECTOR_OPTIONS];

function newPort({ ports }: DeviceType, direction: 'in' | 'out'): PortSpec {
  let n = 1;
  while (ports.some((p) => p.id === `${direction}-${n}`)) n++;
  return {
    id: `${direction}-${n}`,
    name: `${direction} ${n}`,
    direction,
    connector: 'jack-35-trs',
    level: 'line',
    channels: [
      { id: 'left', carries: 'sound' },
      { id: 'right', carries: 'sound' },
    ],
  };
}
