import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { asking, type Followed, wantOfStep } from '#core/live/guides/index.ts';
import {
  type Change,
  carryOut,
  type Edit,
  findSetting,
  findTypes,
  type Rig,
  sayValue,
  type Verb,
} from '#core/model/rig/index.ts';
import type { Whole } from '#core/routing/plan/index.ts';
import { deviceName, evaluationAt } from '#core/signal/index.ts';
import { TwoVerbs } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { searchMakeItSo } from '#web/shared/workers/index.ts';
import { guides as say, textOf } from '#words/index.ts';

interface Props {
  readonly rig: Rig;
  readonly followed: Followed;
  /** The guide, for the history. */
  readonly label: string;
}

interface Proposed {
  readonly rig: Rig;
  readonly first?: Edit;
  readonly changes: readonly Change[];
  readonly says: readonly string[];
}

/** The fewest changes that make a step so, settings first, then cables and devices; done by the two verbs. */
export function Suggest({ rig, followed, label }: Props) {
  const dispatch = useAppDispatch();
  const [busy, setBusy] = useState(false);
  const [found, setFound] = useState<Proposed | null>(null);
  const look = async () => {
    setBusy(true);
    try {
      setFound(proposed(rig, followed, await searchMakeItSo(asking(rig, followed)).result));
    } finally {
      setBusy(false);
    }
  };
  const choose = (verb: Verb) => {
    if (!found) return;
    const want = wantOfStep(rig, followed);
    const edit: Edit = {
      kind: 'batch',
      edits: [...(want ? [want] : []), carryOut(rig, { ...found, momentId: null }, verb, new Date().toISOString())],
    };
    dispatch(applyStep(edit, say.step({ guide: label, says: found.says[0] ?? '' }).slice(0, 180), 'fix'));
    setFound(null);
  };
  if (busy) return <p className="quiet small">{say.searching()}</p>;
  if (!found || found.rig !== rig)
    return (
      <p className="row">
        <Button onClick={() => void look()}>{say.suggest()}</Button>
      </p>
    );
  if (found.changes.length === 0)
    return <p className="small quiet">{followed.state === 'open' ? say.nothingFound() : say.alreadySo()}</p>;
  return (
    <>
      <ul className="small">
        {found.says.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ul>
      <p className="row">
        <TwoVerbs of={found.says.join('; ')} onVerb={choose} />
      </p>
    </>
  );
}

/**
 * What of a whole proposal is for the pair of the step: its settings, with those that they make necessary elsewhere; else
 * a cable or device that brings it.
 */
function proposed(rig: Rig, { pair }: Followed, { changes, bridges }: Whole): Proposed {
  const isOurs = (p: { readonly sourceId: string; readonly listenerId: string }) =>
    p.sourceId === pair?.sourceId && p.listenerId === pair.listenerId;
  const types = findTypes(rig);
  const sayChange = ({ deviceId, settingId, value }: Whole['changes'][number]) => {
    const spec = findSetting(rig, types, deviceId, settingId);
    return `${deviceName(rig, deviceId)}, ${spec?.name ?? settingId}: ${textOf(sayValue(spec, value))}`;
  };
  const { pairs } = evaluationAt(rig, null);
  const isWrongNow = (w: Whole['changes'][number]['mends'][number]) =>
    pairs.some((p) => p.sourceId === w.sourceId && p.listenerId === w.listenerId && p.verdict.word === w.word);
  const isOwn = changes.some((c) => c.mends.some(isOurs));
  const own = changes.filter((c) => isOwn && c.mends.some((w) => isOurs(w) || !isWrongNow(w)));
  const bridge = bridges.find((b) => isOurs(b.pair));
  if (own.length > 0 || !bridge)
    return {
      rig,
      changes: own.map(({ deviceId, settingId, value }) => ({ deviceId, settingId, value })),
      says: own.map(sayChange),
    };
  return {
    rig,
    ...(bridge.box && { first: bridge.box.edit }),
    changes: [...bridge.cables.map((cable) => ({ cableId: cable.id, cable })), ...bridge.changes],
    says: [...(bridge.box ? [bridge.box.name] : []), ...bridge.parts.map(textOf)],
  };
}
