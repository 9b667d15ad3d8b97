import { Button } from '@chakra-ui/react';
import type { Made } from '#core/intake/index.ts';

interface Props {
  readonly made: readonly Made[];
  readonly onToggle: (id: string) => void;
}

/** What follows without having been typed, a sentence each: taken back, or put back, at once. */
export function Connected({ made, onToggle }: Props) {
  if (made.length === 0) return null;
  return (
    <section aria-label="What follows">
      <h2>Connected for you</h2>
      <ul className="plain made">
        {made.map(({ id, says, removed }) => {
          const said = [says.who, says.does, says.what, says.how].filter(Boolean).join(' ');
          return (
            <li key={id} className="spread">
              <span className={`made-says ${removed ? 'quiet gone' : ''}`}>
                {says.who} {says.does} <span className="strong">{says.what}</span> {says.how}{' '}
                {says.note && <span className="small quiet">{says.note}</span>}
              </span>
              <Button size="sm" aria-label={`${removed ? 'Put back' : 'Remove'}: ${said}`} onClick={() => onToggle(id)}>
                {removed ? 'Put back' : 'Remove'}
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
