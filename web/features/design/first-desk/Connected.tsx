import { Button } from '@chakra-ui/react';
import { type KeyboardEvent, useState } from 'react';
import type { Choice, Made } from '#core/intake/index.ts';
import { richSaid } from '#web/shared/parts/index.ts';
import { common, firstDesk as say, textOf } from '#words/index.ts';

interface Props {
  readonly made: readonly Made[];
  readonly onToggle: (id: string) => void;
  readonly onChange: (id: string, optionId: string) => void;
}

/** What follows without having been typed, a sentence each: made in another way, taken back, or put back, at once. */
export function Connected({ made, onToggle, onChange }: Props) {
  const [open, setOpen] = useState<string | null>(null);
  if (made.length === 0) return null;
  return (
    <section aria-label={say.whatFollows()}>
      <h2>{say.connectedForYou()}</h2>
      <ul className="plain made">
        {made.map(({ id, says, note, removed, choice }) => {
          const said = textOf(says);
          return (
            <li key={id} className="spread wrap">
              <span className={`made-says ${removed ? 'quiet gone' : ''}`}>
                {richSaid(says)} {note !== '' && <span className="small quiet">{textOf(note)}</span>}
              </span>
              <span className="row made-buttons">
                {choice && !removed && (
                  <Button
                    size="sm"
                    aria-label={say.change({ said })}
                    aria-expanded={open === id}
                    onClick={() => setOpen(open === id ? null : id)}
                  >
                    {say.changeTitle()}
                  </Button>
                )}
                <Button
                  size="sm"
                  aria-label={`${removed ? say.putBack() : common.remove()}: ${said}`}
                  onClick={() => onToggle(id)}
                >
                  {removed ? say.putBack() : common.remove()}
                </Button>
              </span>
              {choice && !removed && open === id && (
                <Options choice={choice} said={said} onTake={(o) => onChange(id, o)} onClose={() => setOpen(null)} />
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function Options({
  choice,
  said,
  onTake,
  onClose,
}: {
  choice: Choice;
  said: string;
  onTake: (optionId: string) => void;
  onClose: () => void;
}) {
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.key !== 'Escape') return;
    e.stopPropagation();
    onClose();
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset would add a frame of its own
    <span
      role="group"
      aria-label={say.instead({ said })}
      className="row wrap made-buttons made-options"
      onKeyDown={onKeyDown}
    >
      {choice.options.map((o) => (
        <Button
          key={o.id}
          size="sm"
          variant={choice.taken === o.id ? 'solid' : 'outline'}
          aria-pressed={choice.taken === o.id}
          onClick={() => onTake(o.id)}
        >
          {textOf(o.label)}
        </Button>
      ))}
    </span>
  );
}
