import { Button } from '@chakra-ui/react';
import { useCallback, useEffect, useState } from 'react';
import { encode } from 'uqr';
import { DoorState } from '#api/index.ts';
import { formatDate, Term } from '#web/parts/index.ts';
import { Phones } from './Phones.tsx';

const LOOK_MS = 3000;
const TIME = new Intl.DateTimeFormat(undefined, { timeStyle: 'short' });

/** The door for a phone: where it is, the code that opens it once, and what happened there. */
export function OnPhone() {
  const [door, setDoor] = useState<DoorState | 'lost' | null>(null);
  const ask = useCallback(async (path: string, method: string) => {
    try {
      const response = await fetch(path, { method });
      setDoor(response.ok ? DoorState.parse(await response.json()) : 'lost');
    } catch {
      setDoor('lost');
    }
  }, []);
  useEffect(() => {
    void ask('/api/door', 'GET');
    const timer = setInterval(() => void ask('/api/door', 'GET'), LOOK_MS);
    return () => clearInterval(timer);
  }, [ask]);
  if (door === null) return null;
  return (
    <section aria-label="On a phone">
      <h2>
        <Term id="door">On a phone</Term>
      </h2>
      {door === 'lost' ? (
        <p className="quiet">The server does not answer.</p>
      ) : door.urls.length === 0 ? (
        <p>
          Nothing on the network gets in. Start with <code>npm run demo -- --lan</code> to have this page, and the list
          of what is to do, on a phone or tablet that is held at the desk.
        </p>
      ) : (
        <div className="row" style={{ alignItems: 'flex-start', gap: 24 }}>
          <Qr text={`${door.urls[0]}#${door.code}`} />
          <div>
            <p>
              Photograph it with the phone, or open <span className="strong">{door.urls.join(' or ')}</span> and type
            </p>
            <p className="run-time door-code fact" data-testid="door-code">
              {door.code}
            </p>
            <p className="quiet">
              It works once, until {TIME.format(new Date(door.codeUntil))}; then the next one is shown here. A paired
              phone can read the rigs, tick steps and send takes to Measure, nothing else.
            </p>
            <p className="quiet">
              <strong>Plain HTTP:</strong> nothing between phone and computer is encrypted. Anyone on this network can
              read along, and take over a paired phone’s access until you remove it. Use a network that is yours, not a
              venue’s or a café’s.
            </p>
            <Button onClick={() => void ask('/api/door/renew', 'POST')}>New code</Button>
            <Phones phones={door.phones} onRemove={(id) => void ask(`/api/door/phones/${id}`, 'DELETE')} />
            {door.notes.length > 0 && (
              <details>
                <summary>What happened at the door</summary>
                <ul>
                  {door.notes.map((n) => (
                    <li key={`${n.at} ${n.from} ${n.says}`}>
                      <span className="fact">{formatDate(n.at)}</span> {n.from}: {n.says}
                      {n.count > 1 && `, ${n.count} times`}
                    </li>
                  ))}
                </ul>
              </details>
            )}
          </div>
        </div>
      )}
    </section>
  );
}

const CELL = 4;

/** Always dark on light: that is what cameras read. */
function Qr({ text }: { text: string }) {
  const { data, size } = encode(text, { border: 4 });
  const path = data.flatMap((row, y) => row.flatMap((on, x) => (on ? [`M${x} ${y}h1v1h-1z`] : []))).join('');
  return (
    <svg
      width={size * CELL}
      height={size * CELL}
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label="The address and the code as a QR code"
    >
      <rect width={size} height={size} fill="#fff" />
      <path d={path} fill="#000" shapeRendering="crispEdges" />
    </svg>
  );
}
