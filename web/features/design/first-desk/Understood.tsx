import type { DeskRead } from '#core/intake/index.ts';
import { findDevice } from '#core/model/rig/index.ts';
import { firstDesk as say } from '#words/index.ts';

/** What each of the words was taken for: nothing is left out in silence. */
export function Understood({ read: { typed } }: { read: DeskRead }) {
  const there = typed.boxes.filter((b) => b.type !== null);
  const name = (id: string) => findDevice(typed.rig, id)?.name ?? id;
  const unjoined = typed.leads.filter((l) => l.offer === null && !l.maybe);
  return (
    <section aria-label={say.whatWasUnderstood()}>
      <h2>{say.iUnderstood()}</h2>
      {there.length === 0 && <p className="quiet">{say.nothingYet()}</p>}
      <ul className="chips">
        {there.map((b) => (
          <li
            key={`${b.from} ${b.word}`}
            className={b.left.length > 0 || b.others.length > 0 ? 'chip doubtful' : 'chip'}
          >
            <span className="strong">
              {b.count > 1 ? `${b.count} × ` : ''}
              {b.word}
            </span>{' '}
            <span className="small quiet">{shortName(b.type!.name)}</span>
          </li>
        ))}
      </ul>
      {typed.noSocket.map(({ deviceId, socket }) => (
        <p key={`${deviceId} ${socket}`} className="small watch">
          {say.hasNoSocketCalled({ deviceId: name(deviceId), socket })}
        </p>
      ))}
      {unjoined.length > 0 && <p className="small quiet">{say.noCableConnectsPair({ pair: unjoined.length })}</p>}
    </section>
  );
}

/** The name of a type as far as it fits beside a word. */
const shortName = (name: string): string => {
  const [first, second] = name.split(', ');
  return second && first!.length + second.length < 26 ? `${first}, ${second}` : first!;
};
