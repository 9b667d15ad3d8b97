import { Button } from '@chakra-ui/react';
import type { PlanCell, Rig } from '#core/rig/index.ts';
import { rolesOf } from '#core/signal/index.ts';
import { Choice, focusCell, NumberInput, Term, WANTS } from '#web/parts/index.ts';
import { LEVEL_ID, without } from './cell.ts';
import { sayWant } from './say.ts';

interface Props {
  readonly rig: Rig;
  readonly source: Rig['sources'][number];
  readonly listener: Rig['listeners'][number];
  readonly cell: PlanCell | undefined;
  readonly onWant: (want: PlanCell['want'] | null) => void;
  readonly onRefine: (cell: PlanCell, label: string) => void;
  readonly onAlone: () => void;
  readonly onTime: () => void;
}

const SOURCES = {
  voice: 'the main voice',
  'second-voice': 'another voice here',
  'far-voice': 'a voice at the far side of a call',
  'radio-voice': 'a voice on the radio',
  game: 'a game',
  music: 'music',
  other: 'a sound',
} as const;
const LISTENERS = {
  mix: 'a whole programme',
  track: 'one track of several',
  ears: 'ears here',
  'far-ears': 'ears at the far side of a call',
  'radio-ears': 'ears behind a radio',
  room: 'a room',
} as const;

/** One want: whether, how loud, in time with what, alone or not. */
export function WantCard({ rig, source, listener, cell, onWant, onRefine, onAlone, onTime }: Props) {
  const roles = rolesOf(rig);
  const heard = cell && cell.want !== 'must-not';
  const others = rig.sources.filter((s) => s.id !== source.id);
  return (
    <aside className="card" aria-label="Want">
      <h2>
        {source.name} → {listener.name}
      </h2>
      <p className="quiet small" style={{ marginTop: 4 }}>
        {SOURCES[roles.source(source)]}, to {LISTENERS[roles.listener(listener)]}
        {roles.isOwn(source, listener) && '; the own voice there'}
      </p>
      <p style={{ marginTop: 8 }}>{cell ? sayWant(rig, cell) : 'Nothing is said of it: it is not judged.'}</p>
      <div className="answers">
        {WANTS.map(({ want, key, says }) => (
          <Button key={says} variant={(cell?.want ?? null) === want ? 'solid' : 'outline'} onClick={() => onWant(want)}>
            {says} <kbd>{key === 'backspace' ? '⌫' : key}</kbd>
          </Button>
        ))}
      </div>
      {heard && (
        <>
          <h2>How loud</h2>
          <p className="row" style={{ marginTop: 6 }}>
            <NumberInput
              key={`${source.id} ${listener.id}`}
              id={LEVEL_ID}
              label="Wanted under the main voice, dB"
              value={cell.underVoiceDb}
              min={LOWEST_DB}
              max={HIGHEST_DB}
              onEnter={focusCell}
              onValue={(db) =>
                onRefine(
                  without(cell, 'underVoiceDb', db),
                  db === undefined ? 'any level' : `${db} dB under the main voice`,
                )
              }
            />
            <span className="quiet small">
              dB under the main voice <kbd>l</kbd>
            </span>
          </p>
          <h2>When</h2>
          <Choice
            label="In time with"
            value={cell.keepTime === false ? '' : (cell.inTimeWith ?? source.id)}
            options={[
              [source.id, 'in time with its own picture'],
              ...others.map((s) => [s.id, `in time with ${s.name}`] as const),
              ['', 'at any time'],
            ]}
            onChange={(id) => {
              if (id === '') return onTime();
              const timed = without(cell, 'keepTime', undefined);
              onRefine(without(timed, 'inTimeWith', id === source.id ? undefined : id), 'in time');
            }}
          />
          <p className="small quiet" style={{ marginTop: 4 }}>
            <kbd>i</kbd> in time, or at any time
          </p>
          <h2>
            <Term id="own-track">Own track</Term>
          </h2>
          <Button
            style={{ marginTop: 6 }}
            variant={cell.ownTrack ? 'solid' : 'outline'}
            aria-pressed={cell.ownTrack ?? false}
            onClick={onAlone}
          >
            {cell.ownTrack ? 'alone there' : 'with others'} <kbd>a</kbd>
          </Button>
        </>
      )}
      <p className="small quiet" style={{ marginTop: 16 }}>
        <kbd>⇧ m</kbd> and <kbd>⇧ x</kbd> say it of every source at {listener.name}.
      </p>
    </aside>
  );
}

const LOWEST_DB = -40;
const HIGHEST_DB = 60;
