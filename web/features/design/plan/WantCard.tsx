import { Button, chakra } from '@chakra-ui/react';
import type { PlanCell, Rig } from '#core/model/rig/index.ts';
import { rolesOf } from '#core/signal/index.ts';
import { Choice, focusCell, NumberInput, rich, Term, WANTS } from '#web/shared/parts/index.ts';
import { plan } from '#words/index.ts';
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
  voice: plan.mainVoice,
  'second-voice': plan.secondVoice,
  'far-voice': plan.farVoice,
  'radio-voice': plan.radioVoice,
  game: plan.game,
  music: plan.music,
  other: plan.otherSource,
} as const;
const LISTENERS = {
  mix: plan.mix,
  track: plan.track,
  ears: plan.ears,
  'far-ears': plan.farEars,
  'radio-ears': plan.radioEars,
  room: plan.room,
} as const;

/** One want: whether, how loud, in time with what, alone or not. */
export function WantCard({ rig, source, listener, cell, onWant, onRefine, onAlone, onTime }: Props) {
  const roles = rolesOf(rig);
  const heard = cell && cell.want !== 'must-not';
  const said = plan.roles({
    source: SOURCES[roles.source(source)](),
    destination: LISTENERS[roles.listener(listener)](),
  });
  const others = rig.sources.filter((s) => s.id !== source.id);
  return (
    <aside className="card" aria-label={plan.card()}>
      <h2>
        {source.name} → {listener.name}
      </h2>
      <chakra.p className="quiet small" marginTop="4px">
        {roles.isOwn(source, listener) ? plan.theirOwnVoice({ roles: said }) : said}
      </chakra.p>
      <chakra.p marginTop="8px">{cell ? sayWant(rig, cell) : plan.notChecked()}</chakra.p>
      <div className="answers">
        {WANTS.map(({ want, key, says }) => (
          <Button key={says} variant={(cell?.want ?? null) === want ? 'solid' : 'outline'} onClick={() => onWant(want)}>
            {says} <kbd>{key === 'backspace' ? '⌫' : key}</kbd>
          </Button>
        ))}
      </div>
      {heard && (
        <>
          <h2>{plan.howLoud()}</h2>
          <chakra.p className="row" marginTop="6px">
            <NumberInput
              key={`${source.id} ${listener.id}`}
              id={LEVEL_ID}
              label={plan.belowMainVoiceLabel()}
              value={cell.underVoiceDb}
              min={LOWEST_DB}
              max={HIGHEST_DB}
              onEnter={focusCell}
              onValue={(db) =>
                onRefine(
                  without(cell, 'underVoiceDb', db),
                  db === undefined ? plan.anyLevel() : plan.levelBelow({ db }),
                )
              }
            />
            <span className="quiet small">{rich(plan.belowMainVoice, {})}</span>
          </chakra.p>
          <h2>{plan.when()}</h2>
          <Choice
            label={plan.inSyncWith()}
            value={cell.keepTime === false ? '' : (cell.inTimeWith ?? source.id)}
            options={[
              [source.id, plan.withOwnVideo()],
              ...others.map((s) => [s.id, plan.inTimeWith({ source: s.name })] as const),
              ['', plan.anyTime()],
            ]}
            onChange={(id) => {
              if (id === '') return onTime();
              const timed = without(cell, 'keepTime', undefined);
              onRefine(without(timed, 'inTimeWith', id === source.id ? undefined : id), plan.inSync());
            }}
          />
          <chakra.p className="small quiet" marginTop="4px">
            {rich(plan.inTimeHint, {})}
          </chakra.p>
          <h2>
            <Term id="own-track">{plan.ownTrackTitle()}</Term>
          </h2>
          <Button
            marginTop="6px"
            variant={cell.ownTrack ? 'solid' : 'outline'}
            aria-pressed={cell.ownTrack ?? false}
            onClick={onAlone}
          >
            {cell.ownTrack ? plan.onOwnTrack() : plan.withOthers()} <kbd>a</kbd>
          </Button>
        </>
      )}
      <chakra.p className="small quiet" marginTop="16px">
        {rich(plan.applyToAll, { destination: listener.name })}
      </chakra.p>
    </aside>
  );
}

const LOWEST_DB = -40;
const HIGHEST_DB = 60;
