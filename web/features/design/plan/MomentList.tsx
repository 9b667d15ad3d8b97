import { Button, chakra, Input } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { differences, idFrom, momentName, type Rig } from '#core/model/rig/index.ts';
import { evaluationAt, pairChanges } from '#core/signal/index.ts';
import { Head, hidden, off, Table, Term } from '#web/shared/parts/index.ts';
import { applyStep, lookedAt, selectMomentId, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { common, plan } from '#words/index.ts';
import { sayChanges, saySetting, sayWant } from './say.ts';

/** The moments of the session: what is pressed in each, what is wanted then, and what is heard otherwise. */
export function MomentList({ rig }: { rig: Rig }) {
  const dispatch = useAppDispatch();
  const momentId = useAppSelector(selectMomentId);
  const look = (id: string | null) => dispatch(lookedAt(id));
  const rename = (id: string | null, name: string) => {
    const moment = rig.moments.find((m) => m.id === id);
    dispatch(
      applyStep(
        moment
          ? { kind: 'set-moment', moment: { ...moment, name } }
          : { kind: 'set-session', session: { ...rig.session, plainMoment: name } },
        plan.momentStep({ name }),
      ),
    );
  };
  return (
    <section aria-label={plan.moments()}>
      <h2>
        <Term id="moment">{plan.moments()}</Term>
      </h2>
      {rig.moments.length === 0 ? (
        <p className="quiet">{plan.oneMoment()}</p>
      ) : (
        <Table tight className="moments">
          <Head columns={[plan.moment(), plan.mutesAndSwitches(), plan.requirements(), hidden(plan.actions())]} />
          <tbody>
            {[null, ...rig.moments.map((m) => m.id)].map((id) => (
              <MomentRow
                key={id ?? ''}
                rig={rig}
                id={id}
                looked={id === momentId}
                onLook={() => look(id)}
                onRename={(name) => rename(id, name)}
                onRemove={() => {
                  if (id === momentId) look(null);
                  dispatch(
                    applyStep(
                      { kind: 'remove-moment', momentId: id! },
                      plan.momentRemoved({ name: momentName(rig, id) }),
                    ),
                  );
                }}
              />
            ))}
          </tbody>
        </Table>
      )}
      <AddMoment
        rig={rig}
        onAdd={(id, name) => {
          const moment = { id, name, settings: [], plan: [] };
          // What one looks at stays: another moment is looked at when someone says so.
          dispatch(applyStep({ kind: 'add-moment', moment }, plan.momentStep({ name })));
        }}
      />
      {momentId !== null && <Differs rig={rig} momentId={momentId} />}
    </section>
  );
}

interface RowProps {
  readonly rig: Rig;
  readonly id: string | null;
  readonly looked: boolean;
  readonly onLook: () => void;
  readonly onRename: (name: string) => void;
  readonly onRemove: () => void;
}

function MomentRow({ rig, id, looked, onLook, onRename, onRemove }: RowProps) {
  const name = momentName(rig, id);
  const [text, setText] = useState(name);
  const { settings, wants } = useMemo(
    () => (id === null ? { settings: [], wants: [] } : differences(rig, id)),
    [rig, id],
  );
  const settle = () => {
    const next = text.trim();
    if (next === '') setText(name);
    else if (next !== name) onRename(next);
  };
  return (
    <tr aria-selected={looked}>
      <td>
        <Input
          aria-label={plan.nameOf({ moment: name })}
          width="150px"
          maxLength={120}
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={settle}
          onKeyDown={(e) => {
            if (e.key === 'Enter') e.currentTarget.blur();
          }}
        />
      </td>
      <td>{id === null ? plan.sameAsRig() : settings.map((s) => saySetting(rig, s)).join('; ') || common.nothing()}</td>
      <td>{id === null ? plan.planAbove() : wants.map((w) => sayWant(rig, w.to)).join(' ') || plan.theSame()}</td>
      <td>
        <chakra.span className="row" flexWrap="nowrap">
          <Button variant={looked ? 'solid' : 'outline'} aria-pressed={looked} onClick={onLook}>
            {plan.switchToIt()}
          </Button>
          {id !== null && <Button onClick={onRemove}>{common.remove()}</Button>}
        </chakra.span>
      </td>
    </tr>
  );
}

function AddMoment({ rig, onAdd }: { rig: Rig; onAdd: (id: string, name: string) => void }) {
  const [name, setName] = useState('');
  const add = () => {
    const text = name.trim();
    if (text === '') return;
    onAdd(freeId(rig, text), text);
    setName('');
  };
  return (
    <chakra.form
      className="row"
      marginTop="8px"
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <Input
        aria-label={plan.newMomentName()}
        placeholder={plan.newMomentHint()}
        width="250px"
        maxLength={120}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Button type="submit" {...off(name.trim() === '' ? common.typeNameFirst() : null)}>
        {plan.addMoment()}
      </Button>
    </chakra.form>
  );
}

/** An id made of the name that no moment has yet. */
export function freeId(rig: Rig, name: string): string {
  const base = idFrom(name, 'moment');
  const taken = new Set(rig.moments.map((m) => m.id));
  for (let n = 1; ; n++) {
    const id = n === 1 ? base : `${base}-${n}`;
    if (!taken.has(id)) return id;
  }
}

function Differs({ rig, momentId }: { rig: Rig; momentId: string }) {
  const changes = useMemo(() => pairChanges(evaluationAt(rig, null), evaluationAt(rig, momentId)), [rig, momentId]);
  const lines = sayChanges(rig, changes);
  return (
    <>
      <chakra.p marginTop="10px">
        {plan.fromTo({ from: momentName(rig, null), to: momentName(rig, momentId) })}{' '}
        {lines.length === 0 && plan.nothingChanges()}
      </chakra.p>
      {lines.length > 0 && (
        <ul>
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
    </>
  );
}
