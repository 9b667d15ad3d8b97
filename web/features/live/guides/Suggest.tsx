import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { asking, type Followed, type Proposal, proposalFor, wantOfStep } from '#core/live/guides/index.ts';
import { carryOut, type Edit, findSetting, findTypes, type Rig, sayValue, type Verb } from '#core/model/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { TwoVerbs } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { searchMakeItSo } from '#web/shared/workers/index.ts';
import { guides as say, textOf } from '#words/index.ts';
import { PAGE_NAMES } from './pages.ts';

interface Props {
  readonly rig: Rig;
  readonly rigId: string;
  readonly followed: Followed;
  /** The guide, for the history. */
  readonly label: string;
}

type Search =
  | { readonly at: 'idle' }
  | { readonly at: 'busy' }
  | { readonly at: 'found'; readonly rig: Rig; readonly proposal: Proposal | null }
  | { readonly at: 'failed'; readonly says: string };

/** The fewest changes that make a step so, settings first, then cables and devices; done by the two verbs. */
export function Suggest({ rig, rigId, followed, label }: Props) {
  const dispatch = useAppDispatch();
  const [search, setSearch] = useState<Search>({ at: 'idle' });
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  const look = () => {
    const job = searchMakeItSo(asking(rig, followed));
    stop.current = job.stop;
    setSearch({ at: 'busy' });
    job.result.then(
      (whole) => setSearch({ at: 'found', rig, proposal: proposalFor(rig, followed, whole) }),
      (error: unknown) => setSearch({ at: 'failed', says: (error as Error).message }),
    );
  };
  if (search.at === 'busy')
    return (
      <p className="quiet small" role="status">
        {say.searching()}
      </p>
    );
  if (search.at !== 'found' || search.rig !== rig)
    return (
      <p className="row">
        <Button onClick={look}>{say.suggest()}</Button>
        {search.at === 'failed' && <span className="fix small">{search.says}</span>}
      </p>
    );
  const { proposal } = search;
  if (!proposal)
    return (
      <p className="row">
        <span className="small quiet">{say.nothingFound()}</span>
        <Button asChild>
          <Link to={`/rigs/${rigId}/route`}>{say.openPage({ page: PAGE_NAMES.route() })}</Link>
        </Button>
      </p>
    );
  const says = sayProposal(rig, proposal);
  const choose = (verb: Verb) => {
    const want = wantOfStep(rig, followed);
    const edit: Edit = {
      kind: 'batch',
      edits: [...(want ? [want] : []), carryOut(rig, proposal, verb, new Date().toISOString())],
    };
    dispatch(applyStep(edit, say.step({ guide: label, says: says[0] ?? '' }).slice(0, 180), 'fix'));
  };
  return (
    <>
      <ul className="small">
        {says.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ul>
      <p className="row">
        <TwoVerbs of={says.join('; ')} onVerb={choose} />
      </p>
    </>
  );
}

/** What has to be put in, and what to be set, a line each. */
function sayProposal(rig: Rig, { bridge, settings }: Proposal): string[] {
  const types = findTypes(rig);
  return [
    ...(bridge?.box ? [bridge.box.name] : []),
    ...(bridge?.parts ?? []).map(textOf),
    ...settings.map(({ deviceId, settingId, value }) => {
      const spec = findSetting(rig, types, deviceId, settingId);
      return `${deviceName(rig, deviceId)}, ${spec?.name ?? settingId}: ${textOf(sayValue(spec, value))}`;
    }),
  ];
}
