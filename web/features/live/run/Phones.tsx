import { Button, chakra } from '@chakra-ui/react';
import type { DoorState } from '#api/index.ts';
import { formatDate } from '#web/shared/parts/index.ts';
import { common, run as say } from '#words/index.ts';

/** Phones that are let in, each with a way to put it out again. */
export function Phones({ phones, onRemove }: { phones: DoorState['phones']; onRemove: (id: string) => void }) {
  if (phones.length === 0) return null;
  return (
    <>
      <chakra.h3 marginTop="14px">{say.pairedPhones()}</chakra.h3>
      <ul className="plain" aria-label={say.pairedPhones()}>
        {phones.map(({ id, device, address, pairedAt, seenAt }) => (
          <li key={id} className="row">
            <span>
              {say.at({ device, address })}
              <span className="quiet">
                {' '}
                {say.pairedLastSeen({ pairedAt: formatDate(pairedAt), seenAt: formatDate(seenAt) })}
              </span>
            </span>
            <Button onClick={() => onRemove(id)}>{common.remove()}</Button>
          </li>
        ))}
      </ul>
    </>
  );
}
