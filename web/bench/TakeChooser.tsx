import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { TakeRecord } from '#api/index.ts';
import type { Rig } from '#core/rig/index.ts';
import { formatBytes, formatDate } from '#web/parts/index.ts';
import { api } from '#web/store/index.ts';

interface Props {
  readonly takes: readonly TakeRecord[];
  readonly loading: boolean;
  readonly rig: Rig | null;
  readonly onOpen: (ids: readonly string[]) => void;
}

const MOST_PICKED = 16;

/** The takes that are kept: one is opened, two are laid against each other, several are balanced as tracks. */
export function TakeChooser({ takes, loading, onOpen, rig }: Props) {
  const navigate = useNavigate();
  const { rigId } = useParams();
  const [picked, setPicked] = useState<readonly string[]>([]);
  const [remove] = api.useDeleteTakeMutation();
  const [asked, setAsked] = useState<string | null>(null);
  if (loading) return <p className="quiet">Looking for your takes…</p>;
  if (takes.length === 0) return null;
  const toggle = (id: string) =>
    setPicked((all) => (all.includes(id) ? all.filter((p) => p !== id) : [...all, id].slice(-MOST_PICKED)));
  return (
    <>
      <div className="spread">
        <h2>Takes kept here</h2>
        <span className="row" style={{ marginTop: 16 }}>
          <Button disabled={picked.length !== 2} onClick={() => onOpen(picked)}>
            Lay two against each other
          </Button>
          <Button
            disabled={picked.length < 2}
            onClick={() => void navigate(`${rigId ? `/rigs/${rigId}` : ''}/bench/join?takes=${picked.join(',')}`)}
          >
            Join by what they hold
          </Button>
          <Button
            disabled={picked.length < 2}
            onClick={() => void navigate(`${rigId ? `/rigs/${rigId}` : ''}/bench/balance?takes=${picked.join(',')}`)}
          >
            Balance them as tracks
          </Button>
        </span>
      </div>
      <table className="table tight">
        <thead>
          <tr>
            <th>
              <span className="visually-hidden">Pick</span>
            </th>
            <th>Take</th>
            <th className="number">Size</th>
            <th>Came</th>
            <th>Used in</th>
            <th>
              <span className="visually-hidden">What to do with it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {takes.map((take) => (
            <tr key={take.id}>
              <td>
                <input
                  type="checkbox"
                  aria-label={`Pick ${take.name}`}
                  disabled={take.missing}
                  checked={picked.includes(take.id)}
                  onChange={() => toggle(take.id)}
                />
              </td>
              <td>
                {take.missing ? (
                  take.name
                ) : (
                  <Button variant="plain" onClick={() => onOpen([take.id])}>
                    {take.name}
                  </Button>
                )}
                {take.missing && (
                  <span className="fix small"> Its file is missing. Put it back, or choose the same file again.</span>
                )}
                {take.fault && <span className="watch small"> {take.fault}</span>}
              </td>
              <td className="number quiet">{formatBytes(take.bytes)}</td>
              <td className="quiet">{formatDate(take.addedAt)}</td>
              <td className="quiet">
                {rig?.measurements.some((m) => m.takeId === take.id)
                  ? 'this rig'
                  : take.usedBy.length > 0
                    ? 'a rig'
                    : ''}
              </td>
              <td className="number">
                {asked === take.id ? (
                  <span className="row" style={{ justifyContent: 'flex-end' }}>
                    <span className="small">The file goes for good; measured figures stay.</span>
                    <Button
                      onClick={() => {
                        setAsked(null);
                        void remove(take.id);
                      }}
                    >
                      Delete it
                    </Button>
                    <Button onClick={() => setAsked(null)}>Keep it</Button>
                  </span>
                ) : (
                  <Button onClick={() => setAsked(take.id)}>Delete</Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
