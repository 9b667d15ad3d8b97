import { Button, chakra } from '@chakra-ui/react';
import { useCallback, useEffect, useState } from 'react';
import { encode } from 'uqr';
import { DoorState } from '#api/index.ts';
import { Details, formatDate, rich, Term } from '#web/shared/parts/index.ts';
import { run as say } from '#words/index.ts';
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
    <section aria-label={say.onPhone()}>
      <h2>
        <Term id="door">{say.onPhone()}</Term>
      </h2>
      {door === 'lost' ? (
        <p className="quiet">{say.serverIsntResponding()}</p>
      ) : door.urls.length === 0 ? (
        <p>
          {say.phoneAccessIsOff()} <code>npm run demo -- --lan</code> {say.onPhoneWhy()}
        </p>
      ) : (
        <chakra.div className="row" alignItems="flex-start" gap="24px">
          <Qr text={`${door.urls[0]}#${door.code}`} />
          <div>
            <p>
              {say.scanItWithPhones()} <span className="strong">{door.urls.join(say.orWord())}</span> {say.andType()}
            </p>
            <p className="run-time door-code fact" data-testid="door-code">
              {door.code}
            </p>
            <p className="quiet">{say.itWorksOnceUntil({ codeUntil: TIME.format(new Date(door.codeUntil)) })}</p>
            <p className="quiet">{rich(say.plainHttpTrafficBetween, {})}</p>
            <Button onClick={() => void ask('/api/door/renew', 'POST')}>{say.newCode()}</Button>
            <Phones phones={door.phones} onRemove={(id) => void ask(`/api/door/phones/${id}`, 'DELETE')} />
            {door.notes.length > 0 && (
              <Details summary={say.accessLog()}>
                <ul>
                  {door.notes.map((n) => (
                    <li key={`${n.at} ${n.from} ${n.says}`}>
                      <span className="fact">{formatDate(n.at)}</span> {n.from}: {n.says}
                      {n.count > 1 && say.times({ count: n.count })}
                    </li>
                  ))}
                </ul>
              </Details>
            )}
          </div>
        </chakra.div>
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
      aria-label={say.addressAndCodeAs()}
    >
      <rect width={size} height={size} fill="#fff" />
      <path d={path} fill="#000" shapeRendering="crispEdges" />
    </svg>
  );
}
