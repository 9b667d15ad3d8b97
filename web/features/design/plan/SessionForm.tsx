import { type ReactNode, useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { modeName, parseMode } from '#core/model/picture/index.ts';
import { type Rig, RigDocument, type Session } from '#core/model/rig/index.ts';
import { FRAME_RATES, rateName } from '#core/model/units/index.ts';
import { TOLERANCES } from '#core/signal/index.ts';
import { Choice, NumberInput, StateMark } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch, useSettledFindings } from '#web/shared/store/index.ts';
import { plan, textOf } from '#words/index.ts';

const MODES = [
  '1280x720@60',
  '1920x1080@30',
  '1920x1080@60',
  '1920x1080@120',
  '2560x1440@60',
  '3840x2160@30',
  '3840x2160@60',
  '3840x2160@120',
];
/** Less than this is nothing: hours, meters, euros. */
const LEAST = 0.1;
const SAMPLE_RATES = [44_100, 48_000, 96_000];

/** What the session asks for: every line of it is held against the rig. */
export function SessionForm({ rig }: { rig: Rig }) {
  const dispatch = useAppDispatch();
  const { session } = rig;
  const change = (part: Partial<Record<keyof Session, unknown>>, label: string) => {
    const next = Object.fromEntries(Object.entries({ ...session, ...part }).filter(([, v]) => v !== undefined));
    dispatch(
      applyStep(
        { kind: 'set-session', session: RigDocument.shape.session.parse(next) },
        plan.sessionStep({ what: label }),
      ),
    );
  };
  const yesNo = (key: 'twoWay' | 'movesAbout', label: string, yes: string, no: string) => (
    <Field label={label}>
      {(name) => (
        <Choice
          label={name}
          value={session[key] === undefined ? '' : session[key] ? 'yes' : 'no'}
          options={[
            ['', plan.notSet()],
            ['yes', yes],
            ['no', no],
          ]}
          onChange={(v) => change({ [key]: v === '' ? undefined : v === 'yes' }, label)}
        />
      )}
    </Field>
  );
  const amount = (key: 'hours' | 'distanceM' | 'budgetEur', label: string, unit: string, max: number) => (
    <Field label={label}>
      {(name) => (
        <span className="row">
          <NumberInput
            label={name}
            width="84px"
            placeholder={plan.notSet()}
            min={LEAST}
            max={max}
            value={session[key]}
            onValue={(value) => change({ [key]: value }, label)}
          />
          <span className="small quiet">{unit}</span>
        </span>
      )}
    </Field>
  );
  const modes = session.pictureMode && !MODES.includes(session.pictureMode) ? [...MODES, session.pictureMode] : MODES;
  const rates = [...new Set([...SAMPLE_RATES, session.sampleRateHz])].sort((a, b) => a - b);
  return (
    <section aria-label={plan.session()}>
      <h2>{plan.sessionRequirements()}</h2>
      <div className="fields">
        <Field label={plan.videoFormat()}>
          {(name) => (
            <Choice
              label={name}
              value={session.pictureMode ?? ''}
              options={[['', plan.notSet()], ...modes.map((m) => [m, textOf(modeName(parseMode(m)))] as const)]}
              onChange={(m) => change({ pictureMode: m || undefined }, plan.videoFormat())}
            />
          )}
        </Field>
        <Field label={plan.frameRate()}>
          {(name) => (
            <Choice
              label={name}
              value={rateName(session.frameRate)}
              options={FRAME_RATES.map((r) => [rateName(r), rateName(r)])}
              onChange={(r) => change({ frameRate: FRAME_RATES.find((f) => rateName(f) === r) }, plan.frameRate())}
            />
          )}
        </Field>
        <Field label={plan.sampleRate()}>
          {(name) => (
            <Choice
              label={name}
              value={String(session.sampleRateHz)}
              options={rates.map((r) => [String(r), `${r / 1000} kHz`])}
              onChange={(r) => change({ sampleRateHz: Number(r) }, plan.sampleRate())}
            />
          )}
        </Field>
        <Field label={plan.lipSyncTolerance()}>
          {(name) => (
            <Choice
              label={name}
              value={session.toleranceId}
              options={TOLERANCES.map((t) => [t.id, textOf(t.name)])}
              onChange={(t) => change({ toleranceId: t }, plan.lipSyncTolerance())}
            />
          )}
        </Field>
        {amount('hours', plan.length(), plan.hours(), 72)}
        {yesNo('twoWay', plan.direction(), plan.twoWay(), plan.oneWay())}
        {yesNo('movesAbout', plan.presenter(), plan.walksAbout(), plan.sitsStill())}
        {amount('distanceM', plan.distance(), plan.meters(), 200)}
        {amount('budgetEur', plan.budget(), '€', 1_000_000)}
      </div>
      <Unmet />
    </section>
  );
}

/** What of it the rig does not keep. */
function Unmet() {
  const { rigId } = useParams();
  const findings = useSettledFindings();
  const unmet = useMemo(() => findings.filter((f) => f.rule.startsWith('brief-') && !f.dismissed), [findings]);
  if (unmet.length === 0) return null;
  return (
    <ul className="plain" aria-label={plan.notMet()}>
      {unmet.map((f) => (
        <li key={f.id}>
          <StateMark state={f.severity} /> {textOf(f.asks ?? f.says)}{' '}
          <Link to={`/rigs/${rigId}/wire?finding=${encodeURIComponent(f.id)}`}>{plan.howToFix()}</Link>
        </li>
      ))}
    </ul>
  );
}

function Field({ label, children }: { label: string; children: (name: string) => ReactNode }) {
  return (
    <div>
      <span className="small quiet">{label}</span>
      {children(label)}
    </div>
  );
}
