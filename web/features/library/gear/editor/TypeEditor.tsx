import { Button, chakra, Input } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import type { DeviceType } from '#core/model/rig/index.ts';
import { readGear } from '#core/rules/index.ts';
import { off, StateMark } from '#web/shared/parts/index.ts';
import { common, gear as say, textOf } from '#words/index.ts';
import { FigureFields } from './FigureFields.tsx';
import { PortFields } from './PortFields.tsx';
import { SettingFields } from './SettingFields.tsx';
import { WayFields } from './WayFields.tsx';

interface Props {
  readonly type: DeviceType;
  readonly onSave: (type: DeviceType) => void;
  readonly onCancel: () => void;
}

/** A type of one's own by fields: sockets, what can be set, its delays, the ways inside; checked while one writes. */
export function TypeEditor({ type, onSave, onCancel }: Props) {
  const [draft, setDraft] = useState(type);
  const read = useMemo(() => readGear(JSON.stringify(draft)), [draft]);
  const price = draft.priceEur ?? [0, 0];
  return (
    <>
      <div className="spread">
        <h1>{type.name}</h1>
        <span className="row">
          <Button
            variant="solid"
            {...off(read.ok ? null : textOf(read.faults[0]!.says))}
            onClick={() => read.ok && onSave(read.type)}
          >
            {common.save()}
          </Button>
          <Button onClick={onCancel}>{common.cancel()}</Button>
        </span>
      </div>
      <div aria-live="polite">
        {read.ok ? (
          <p className="good">
            <StateMark state="good" /> {say.itWorksLikeBuilt()}
          </p>
        ) : (
          read.faults.map((f) => (
            <p key={f.path + f.says} className="fix">
              <StateMark state="fix" /> {f.path && `${f.path}: `}
              {textOf(f.says)}
            </p>
          ))
        )}
      </div>
      <chakra.p className="row" marginTop="10px">
        <Input
          aria-label={say.nameType()}
          width="320px"
          value={draft.name}
          maxLength={120}
          onChange={(e) => setDraft({ ...draft, name: e.target.value })}
        />
        {[0, 1].map((i) => (
          <Input
            key={i}
            aria-label={i === 0 ? say.priceFromEuros() : say.priceToEuros()}
            type="number"
            width="90px"
            value={price[i]}
            onChange={(e) => {
              const next: [number, number] = [...price] as [number, number];
              next[i] = Number(e.target.value);
              setDraft({ ...draft, priceEur: next });
            }}
          />
        ))}
        <span className="quiet">{say.euros()}</span>
      </chakra.p>
      <Input
        aria-label={say.summary()}
        width="100%"
        marginTop="8px"
        value={draft.summary}
        onChange={(e) => setDraft({ ...draft, summary: e.target.value })}
      />
      <PortFields draft={draft} onDraft={setDraft} />
      <SettingFields draft={draft} onDraft={setDraft} />
      <FigureFields draft={draft} onDraft={setDraft} />
      <WayFields draft={draft} onDraft={setDraft} />
    </>
  );
}
