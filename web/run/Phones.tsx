import { Button } from '@chakra-ui/react';
import type { DoorState } from '#api/index.ts';
import { formatDate } from '#web/parts/index.ts';

/** Phones that are let in, each with a way to put it out again. */
export function Phones({ phones, onRemove }: { phones: DoorState['phones']; onRemove: (id: string) => void }) {
  if (phones.length === 0) return null;
  return (
    <>
      <h3 style={{ marginTop: 14 }}>Paired</h3>
      <ul className="plain" aria-label="Paired phones">
        {phones.map(({ id, device, address, pairedAt, seenAt }) => (
          <li key={id} className="row">
            <span>
              {device} at {address}
              <span className="quiet">
                {' '}
                paired {formatDate(pairedAt)}, last seen {formatDate(seenAt)}
              </span>
            </span>
            <Button onClick={() => onRemove(id)}>Remove</Button>
          </li>
        ))}
      </ul>
    </>
  );
}
