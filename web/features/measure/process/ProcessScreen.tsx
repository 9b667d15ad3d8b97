import { Button, chakra } from '@chakra-ui/react';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { responseDb, staticGainDb, type Treatment, treatmentSections } from '#core/audio/process/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { layoutResponse, layoutStatic, SmallCurve, TakenChart, useWidth } from '#web/shared/charts/index.ts';
import { WorkLine } from '#web/shared/jobs/index.ts';
import { evenGains, type ReceivedPath, SwitchBar } from '#web/shared/listen/index.ts';
import { formatClock, formatNumber, rich, Term, useKey } from '#web/shared/parts/index.ts';
import { selectRig, useAppSelector } from '#web/shared/store/index.ts';
import {
  keepTreatment,
  readTreatment,
  type SoundAtHand,
  type TakeAtHand,
  TakeGate,
  TakePage,
  useSound,
} from '#web/shared/take/index.ts';
import type { TriedStretch, TriedTreatment } from '#web/shared/workers/index.ts';
import { process as say } from '#words/index.ts';
import { Figures } from './Figures.tsx';
import { OntoDesk } from './OntoDesk.tsx';
import { StepList } from './StepList.tsx';
import { withField, withStep } from './setup.ts';

const SECONDS = 20;
const CEILING_DBTP = -1;

/** Try it on the take: filters and dynamics on the part in which most is said, heard and measured at once. */
export function ProcessScreen() {
  return (
    <TakeGate title={say.tryProcessingOnTake()} most={1} least={1} asks={say.chooseVoiceTakeIn()}>
      {([take], bench) => <Trying key={take!.id} take={take!} bench={bench} />}
    </TakeGate>
  );
}

function Trying({ take, bench }: { take: TakeAtHand; bench: string }) {
  const { rigId } = useParams();
  const rig = useAppSelector(selectRig);
  const ids = useMemo(() => [take.id], [take.id]);
  const sound = useSound(ids);
  const [stretch, setStretch] = useState<TriedStretch | null>(null);
  const { desk, run } = sound;
  useEffect(() => {
    if (!desk) return;
    let gone = false;
    setStretch(null);
    void run(say.measuringVoice(), ({ api }) => api.stretch(SECONDS, CEILING_DBTP)).then((found) => {
      if (!gone) setStretch(found);
    });
    return () => {
      gone = true;
    };
  }, [desk, run]);
  return (
    <TakePage
      title={
        <>
          <Term id="treatment">{say.tryProcessing()}</Term>: {take.name}
        </>
      }
      bench={bench}
    >
      <WorkLine
        task={sound.work.task}
        name={sound.work.task?.name}
        onStop={sound.work.stop}
        onAgain={sound.work.again}
      />
      {stretch && <Tried sound={sound} takeIds={ids} stretch={stretch} bench={bench} rig={rigId ? rig : null} />}
    </TakePage>
  );
}

interface TriedProps {
  readonly sound: SoundAtHand;
  readonly takeIds: readonly string[];
  readonly stretch: TriedStretch;
  readonly bench: string;
  /** Null in Measure without a rig. */
  readonly rig: Rig | null;
}

function Tried({ sound, takeIds, stretch, bench, rig }: TriedProps) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const [treatment, setTreatment] = useState<Treatment>(() => readTreatment(takeIds) ?? stretch.start);
  const [last, setLast] = useState(treatment);
  const treated = useTreated(sound, treatment);
  const change = (next: Treatment) => {
    setTreatment(next);
    keepTreatment(takeIds, next);
  };
  const begin = () => change(stretch.start);
  const navigate = useNavigate();
  const blind = () => {
    // What was found for the take and never changed is what is compared, too.
    keepTreatment(takeIds, treatment);
    void navigate(`${bench.replace('/bench?', '/bench/blind?')}&treated=1`);
  };
  useKey('x', say.compareBlind(), blind);
  useKey('p', say.startAgainFromMeasured(), begin);
  const sounds = useMemo((): ReceivedPath[] => {
    const [was, is] = treated ? evenGains([stretch.sound, treated.sound]) : [];
    return [
      { name: say.asRecorded(), loop: treated ? { ...stretch.sound, gain: was! } : null },
      { name: say.processed(), loop: treated ? { ...treated.sound, gain: is! } : null },
    ];
  }, [stretch, treated]);
  const { sampleRateHz } = stretch.sound;
  const response = useMemo(() => {
    const sections = treatmentSections(treatment, sampleRateHz);
    return layoutResponse((hz) => responseDb(sections, hz, sampleRateHz), sampleRateHz);
  }, [treatment, sampleRateHz]);
  const bend = useMemo(() => {
    const { compressor, makeupDb } = treatment;
    const { usualTopsDbfs, loudTopsDbfs } = stretch.voice;
    return layoutStatic(
      (db) => db + makeupDb + (compressor ? staticGainDb(db, compressor) : 0),
      [usualTopsDbfs, loudTopsDbfs].filter((db) => db !== null),
    );
  }, [treatment, stretch]);
  const curves = useMemo(
    () =>
      CURVES.flatMap(({ id, name, hue }) => {
        const curve = treated?.curves[id];
        return curve ? [{ name, hue, curve }] : [];
      }),
    [treated],
  );
  const { speechLufs, betweenLufs } = stretch.voice;
  return (
    <>
      <p className="quiet">
        {say.toWhereThereIs({ fromS: formatClock(1000 * stretch.fromS), toS: formatClock(1000 * stretch.toS) })}
        {speechLufs !== null && <>{say.voiceAtLufs({ speechLufs: formatNumber(speechLufs, 1) })}</>}
        {betweenLufs !== null && <>{say.backgroundAtLufs({ betweenLufs: formatNumber(betweenLufs, 1) })}</>}
        {say.grayAndDark()}{' '}
        {CURVES.map((c, i) => (
          <span key={c.id}>
            {i > 0 && ', '}
            <span style={{ color: c.hue }}>{c.name.toLowerCase()}</span>
          </span>
        ))}
        .
      </p>
      <div ref={ref}>
        <TakenChart
          before={{ x: stretch.sound.channels[0]!, gain: SEEN_GAIN * (sounds[0]!.loop?.gain ?? 1) }}
          treated={treated && { x: treated.sound.channels[0]!, gain: SEEN_GAIN * (sounds[1]!.loop?.gain ?? 1) }}
          curves={curves}
          widthPx={width}
        />
      </div>
      <SwitchBar sounds={sounds} says={say.matchedInLoudnessSwitched()} />
      <div className="spread">
        <h2>{say.processingChain()}</h2>
        <chakra.span className="row" marginTop="14px">
          <Button onClick={begin}>{rich(say.startFromTakeP, {})}</Button>
          <Button onClick={blind}>{rich(say.compareBlindX, {})}</Button>
        </chakra.span>
      </div>
      <div className="two-columns">
        <div>
          <StepList
            treatment={treatment}
            onStep={(id, on) => {
              if (!on) setLast({ ...last, [id]: treatment[id] });
              change(withStep(treatment, id, on, last));
            }}
            onField={(id, key, value) => change(withField(treatment, id, key, value))}
            onMakeup={(makeupDb) => change({ ...treatment, makeupDb })}
          />
          <Figures before={stretch.figures} treated={treated?.figures ?? null} />
          {treated?.limited && treated.limited.mostDb > 0.1 && (
            <p>
              {say.limiterReducesGainBy({
                mostDb: formatNumber(treated.limited.mostDb, 1),
                seconds: formatNumber(treated.limited.seconds, 1),
              })}
            </p>
          )}
          {rig && <OntoDesk rig={rig} treatment={treatment} />}
          <p className="quiet small">{say.compressionRaises()}</p>
        </div>
        <div>
          <p className="quiet small">{say.lowCutAndPresence()}</p>
          <SmallCurve layout={response} label={say.responseLowCutAnd()}>
            <line x1={34} x2={300} y1={response.zeroPx} y2={response.zeroPx} stroke="var(--rule2)" />
          </SmallCurve>
          <p className="quiet small">{say.compressorDbfsOutBy()}</p>
          <SmallCurve layout={bend} label={say.compressorLevelOutBy()}>
            {bend.marks.map((m) => (
              <circle key={m.px} cx={m.px} cy={m.py} r={4} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2} />
            ))}
          </SmallCurve>
        </div>
      </div>
    </>
  );
}

/** The even loudness leaves room; for the eye it is turned up. */
const SEEN_GAIN = 2;
const CURVES = [
  { id: 'gate', name: say.gate(), hue: 'var(--s1)' },
  { id: 'deEss', name: say.deEsser(), hue: 'var(--s5)' },
  { id: 'compressor', name: say.compressor(), hue: 'var(--s2)' },
] as const;

/** What the treatment makes of the stretch; the last one stays until the next is there. */
function useTreated({ desk }: SoundAtHand, treatment: Treatment): TriedTreatment | null {
  const [treated, setTreated] = useState<TriedTreatment | null>(null);
  useEffect(() => {
    if (!desk) return;
    let gone = false;
    desk.api.treat(treatment).then(
      (made) => {
        if (!gone) setTreated(made);
      },
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [desk, treatment]);
  return treated;
}
