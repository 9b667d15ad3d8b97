import { Button } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import {
  type Chosen,
  castOf,
  type Followed,
  followGuide,
  GUIDES,
  type Guide,
  nameOf,
} from '#core/live/guides/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { type Evaluation, SCALE_UNITS } from '#core/signal/index.ts';
import { useConfirmed } from '#web/features/live/next/index.ts';
import { Choice, formatNumber, Page, StateMark } from '#web/shared/parts/index.ts';
import { findingsOf, selectEvaluation, selectRig, useAppSelector, useSettledRig } from '#web/shared/store/index.ts';
import { guides as say, textOf } from '#words/index.ts';
import { GuideList } from './GuideList.tsx';
import { PAGE_NAMES } from './pages.ts';
import { Suggest } from './Suggest.tsx';
import { introOf, saySought, sayStep, titleOf } from './say.ts';

/** One job, on the user's own rig: what has to be so, what is missing, and what brings it. */
export function GuideScreen() {
  const rig = useAppSelector(selectRig);
  const evaluation = useAppSelector(selectEvaluation);
  const { guideId, rigId = '' } = useParams();
  const guide = GUIDES.find((g) => g.id === guideId);
  if (!rig || !evaluation) return null;
  return guide ? <Steps key={guide.id} rig={rig} evaluation={evaluation} guide={guide} rigId={rigId} /> : <GuideList />;
}

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly guide: Guide;
  readonly rigId: string;
}

const MARKS = { done: 'good', open: 'fix', missing: 'stop', look: 'none' } as const;

function Steps({ rig, evaluation, guide, rigId }: Props) {
  const [chosen, setChosen] = useState<Chosen>({});
  const settled = useSettledRig() ?? rig;
  const cast = useMemo(() => castOf(rig, guide), [rig, guide]);
  const followed = useMemo(
    () => followGuide(rig, evaluation, findingsOf(settled), guide, chosen),
    [rig, evaluation, settled, guide, chosen],
  );
  const unconfirmed = !useConfirmed();
  const done = followed.filter((f) => f.state === 'done').length;
  const next = followed.find((f) => f.state !== 'done');
  return (
    <Page title={titleOf(guide)} actions={<Link to={`/rigs/${rigId}/how`}>{say.all()}</Link>}>
      <p>{introOf(guide)}</p>
      <p className="quiet" role="status">
        {say.progress({ done, of: followed.length })}
      </p>
      <ul className="row plain" aria-label={say.meant()}>
        {Object.entries(guide.seeks).map(([name, sought]) => (
          <li key={name} className="row">
            <span className="small quiet">{saySought(sought)}</span>
            {cast[name]!.length > 1 ? (
              <Choice
                label={saySought(sought)}
                value={chosen[name] ?? cast[name]![0]!.id}
                options={cast[name]!.map((f) => [f.id, f.name] as const)}
                onChange={(id) => setChosen({ ...chosen, [name]: id })}
              />
            ) : (
              <span className="strong">{cast[name]![0]?.name ?? say.notHere()}</span>
            )}
          </li>
        ))}
      </ul>
      <ol className="next-steps">
        {followed.map((f, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps stay in their order
          <li key={i} aria-current={f === next ? 'step' : undefined}>
            <p className={f === next ? 'strong' : ''}>
              <StateMark state={MARKS[f.state]} unconfirmed={unconfirmed} />{' '}
              {sayStep(rig, guide, f, (name) => nameOf(cast, chosen, name))}
            </p>
            {(f.state === 'done' ? [] : f.findings).map((finding) => (
              <p key={finding.id} className="small quiet">
                {textOf(finding.says)}
              </p>
            ))}
            {f.step.do === 'proof' && <Proof followed={f} />}
            <Doing rig={rig} rigId={rigId} guide={guide} followed={f} />
          </li>
        ))}
      </ol>
    </Page>
  );
}

/** What is received there now: how loud, how late. */
function Proof({ followed: { pair } }: { followed: Followed }) {
  const way = pair?.ways[0];
  return (
    <p className="fact">
      {way
        ? say.gets({
            level: formatNumber(way.levelDb.nominal),
            scale: SCALE_UNITS[way.scale],
            delay: formatNumber(way.delay.value.nominal),
          })
        : say.getsNothing()}
    </p>
  );
}

/** What can be done about a step from here. */
function Doing({ rig, rigId, guide, followed }: { rig: Rig; rigId: string; guide: Guide; followed: Followed }) {
  const { step, state, findings } = followed;
  if (state === 'done') return null;
  const link = (page: string, label: string) => (
    <Button asChild>
      <Link to={`/rigs/${rigId}/${page}`}>{label}</Link>
    </Button>
  );
  if (step.do === 'open')
    return <p className="row">{link(step.page, say.openPage({ page: PAGE_NAMES[step.page]() }))}</p>;
  if (state === 'missing') {
    const isDevice = step.do === 'have' && guide.seeks[step.of]!.what === 'device';
    return (
      <p className="row">
        {link(isDevice ? 'wire' : 'plan', say.openPage({ page: isDevice ? PAGE_NAMES.wire() : PAGE_NAMES.plan() }))}
        <span className="small quiet">{isDevice ? say.wireSays() : say.planSays()}</span>
      </p>
    );
  }
  if (step.do === 'clear' || step.do === 'time')
    return (
      <p className="row">
        {link(
          step.do === 'time' ? 'sync' : `wire?finding=${encodeURIComponent(findings[0]?.id ?? '')}`,
          say.openPage({ page: step.do === 'time' ? PAGE_NAMES.sync() : PAGE_NAMES.wire() }),
        )}
      </p>
    );
  if (step.do === 'quick' || step.do === 'proof')
    return <p className="row">{link('route', say.openPage({ page: PAGE_NAMES.route() }))}</p>;
  return <Suggest rig={rig} rigId={rigId} followed={followed} label={titleOf(guide)} />;
}
