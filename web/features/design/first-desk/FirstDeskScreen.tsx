import { Button, chakra, Input, Textarea } from '@chakra-ui/react';
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { changeOf, type DeskOptions } from '#core/intake/index.ts';
import { emptyRig, type Rig } from '#core/model/rig/index.ts';
import { type OwnWords, ownKey, titleOf } from '#core/routing/grammar/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { MapPicture, useTypeItems } from '#web/features/design/wire/index.ts';
import { Frame, Pick, rich, Sheet, useKey, useKeyHint } from '#web/shared/parts/index.ts';
import { api, sayProblem } from '#web/shared/store/index.ts';
import { frame, firstDesk as say } from '#words/index.ts';
import { Connected } from './Connected.tsx';
import { Decide } from './Decide.tsx';
import { nameFor } from './name.ts';
import { ownWords, remember } from './own-words.ts';
import { OTHER, type Step, stepsOf } from './steps.ts';
import { TemplateDialog } from './TemplateDialog.tsx';
import { Understood } from './Understood.tsx';
import { useDeskReading } from './useDeskReading.ts';
import { WillHear } from './WillHear.tsx';

const EXAMPLE = `2 consoles > hdmi switch > capture card > pc > streaming app
me > xlr mic > small usb mixer > pc
friend > voice chat > pc; usb headset > pc`;
const NOTHING = emptyRig(say.newRig());

/** A first desk: typed in plain words, shown as it is understood, decided where only a person can, and made. */
export function FirstDeskScreen() {
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const [text, setText] = useState('');
  const [own, setOwn] = useState<OwnWords>(ownWords);
  const [answers, setAnswers] = useState<ReadonlyMap<string, string>>(new Map());
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const [typedName, setTypedName] = useState<string | null>(null);
  const [at, setAt] = useState<number | null>(null);
  const [picking, setPicking] = useState<Step | null>(null);
  const [template, setTemplate] = useState(search.has('template'));
  const [problem, setProblem] = useState<string | null>(null);
  /** Enter was pressed while the newest text or answer was still being read: applied once it is. */
  const [pending, setPending] = useState<'go-on' | 'make' | null>(null);
  const field = useRef<HTMLTextAreaElement>(null);
  const rigs = api.useRigsQuery(undefined);
  const [create, creating] = api.useCreateRigMutation();
  const options = useMemo<DeskOptions>(() => ({ own, answers, without }), [own, answers, without]);
  const { read, current, failed } = useDeskReading(text, options);
  const steps = useMemo(() => (read ? stepsOf(read) : []), [read]);
  const rig = read?.rig ?? null;
  const evaluation = useMemo(() => (rig ? evaluate(rig) : null), [rig]);
  const named = typedName ?? titleOf(text) ?? nameFor(rig, rigs.data?.map((r) => r.name) ?? [], new Date());
  const step = at === null ? undefined : steps[at];
  const unknown = steps.filter((s) => s.kind === 'unknown').length;
  const beginsWithText = useRef(!template);
  useEffect(() => {
    if (beginsWithText.current) field.current?.focus();
  }, []);

  const begin = async (document: Rig) => {
    const id = crypto.randomUUID();
    try {
      await create({ id, document }).unwrap();
      navigate(`/rigs/${id}/route`);
    } catch (error) {
      setProblem(sayProblem(error));
    }
  };
  const make = () => {
    if (!current) return setPending('make');
    if (!rig || creating.isLoading) return;
    const used = read!.typed.boxes.flatMap((b) => {
      const key = ownKey(b.word);
      return own.has(key) ? [[key, own.get(key)!] as const] : [];
    });
    void begin({ ...rig, name: named, ...(used.length > 0 && { words: Object.fromEntries(used) }) });
  };
  /** Moves to the next open question; after the last one, creates the rig. */
  const goOn = (from: number | null) => {
    if (!rig) return;
    const next = from === null ? 0 : from + 1;
    if (next < steps.length) setAt(next);
    else {
      setAt(null);
      make();
    }
  };
  const take = (taken: Step, optionId: string) => {
    if (optionId === OTHER) return setPicking(taken);
    if (taken.kind === 'decision') setAnswers(new Map([...answers, [taken.id, optionId]]));
    else {
      const words = new Map([...own, [ownKey(taken.words), optionId]]);
      setOwn(words);
      remember(words);
    }
  };
  const byKey = (n: number) => {
    const option = step?.options[n];
    if (!step || !option || at === null) return;
    take(step, option.id);
    // A word that is settled is no step any more: the next one takes its place.
    if (option.id !== OTHER && step.kind === 'decision' && at + 1 < steps.length) setAt(at + 1);
  };
  useKeyHint('1–9', say.atQuestionItsAnswers());
  useKeyHint('enter', say.nextQuestionAfterLast());
  useKeyHint('arrowdown,arrowup', say.fromQuestionToQuestion());
  useKeyHint('escape', say.atQuestionBackTo());
  useKey('o', say.usingTemplate(), () => setTemplate(true), !template && !picking);
  useKeyHint('shift+enter', say.inTextNewLine());
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.key !== 'Enter' || e.shiftKey) return;
    e.preventDefault();
    if (current) goOn(null);
    else setPending('go-on');
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when what was typed has been read
  useEffect(() => {
    if (!pending || !current) return;
    setPending(null);
    if (pending === 'make') make();
    else goOn(null);
  }, [pending, current]);
  const top = (
    <chakra.div className="spread" flex={1}>
      <div className="row">
        <span className="small quiet">{say.newRig()}</span>
        <Input
          aria-label={say.nameRig()}
          value={named}
          onChange={(e) => setTypedName(e.target.value)}
          maxLength={120}
          width="230px"
        />
        <span className="quiet" role="status">
          {rig ? say.nothingCreatedYet({ devices: rig.devices.length }) : say.nothingCreatedYetWord()}
          {!current && say.reading()}
        </span>
      </div>
      <span className="row">
        <Button onClick={() => setTemplate(true)}>{rich(say.usingTemplateO, {})}</Button>
        <Button
          onClick={() =>
            void begin(emptyRig(typedName ?? nameFor(null, rigs.data?.map((r) => r.name) ?? [], new Date())))
          }
        >
          {say.startEmpty()}
        </Button>
      </span>
    </chakra.div>
  );
  return (
    <Frame
      nav={[
        { to: '/', label: say.rigs() },
        { to: '/new', label: say.newRig() },
      ]}
      more={[{ to: '/bench', label: frame.measure() }]}
      top={top}
    >
      <main className="frame-page first-desk">
        <div className="page">
          <h1>{say.whatsOnYourDesk()}</h1>
          <p className="quiet">{rich(say.typeItWaySignal, {})}</p>
          <Textarea
            ref={field}
            aria-label={say.whatsOnYourDeskTitle()}
            className="desk-text"
            rows={Math.max(3, text.split('\n').length)}
            placeholder={EXAMPLE}
            spellCheck={false}
            value={text}
            onFocus={() => setAt(null)}
            onChange={(e) => {
              setPending(null);
              setText(e.target.value);
            }}
            onKeyDown={onKeyDown}
          />
          <div aria-live="polite">
            {problem && <p className="fix">{problem}</p>}
            {failed && <p className="fix">{failed}</p>}
          </div>
          {read && (
            <>
              <Understood read={read} />
              <Decide
                steps={steps}
                at={at}
                onAt={setAt}
                onTake={take}
                onKey={byKey}
                onNext={() => goOn(at)}
                onBack={() => field.current?.focus()}
              />
              <Connected
                made={read.made}
                onToggle={(id) =>
                  setWithout(new Set(without.has(id) ? [...without].filter((w) => w !== id) : [...without, id]))
                }
                onChange={(id, optionId) => setAnswers(new Map([...answers, [changeOf(id), optionId]]))}
              />
            </>
          )}
        </div>
        <div className="page would-be">
          <h1>{say.everyoneWillHear()}</h1>
          {rig && evaluation ? (
            <>
              <WillHear rig={rig} evaluation={evaluation} />
              <MapPicture rig={rig} evaluation={evaluation} />
              <p className="quiet">
                {say.cablesGainsAndDelays({
                  is: unknown > 0 ? say.wordsLeftOut({ count: unknown }) : '',
                })}
              </p>
              <chakra.p className="row" marginTop="12px">
                <Button variant="solid" disabled={creating.isLoading} onClick={make}>
                  {rich(say.createThisRigEnter, {})}
                </Button>
              </chakra.p>
            </>
          ) : (
            <p className="quiet">{text.trim() === '' ? say.startTypingItsRead() : say.nothingHereIsUnderstood()}</p>
          )}
        </div>
      </main>
      {picking && (
        <OtherDialog
          words={picking.words}
          onPick={(typeId) => {
            take(picking, typeId);
            setPicking(null);
          }}
          onClose={() => setPicking(null)}
        />
      )}
      {template && (
        <TemplateDialog
          onWords={(words) => {
            setText(words);
            setTemplate(false);
            setTimeout(() => field.current?.focus());
          }}
          onClose={() => setTemplate(false)}
        />
      )}
    </Frame>
  );
}

/** Everything there is, for a word of one’s own. */
function OtherDialog({
  words,
  onPick,
  onClose,
}: {
  words: string;
  onPick: (typeId: string) => void;
  onClose: () => void;
}) {
  const items = useTypeItems(NOTHING);
  return (
    <Sheet title={say.whatIs({ words })} onClose={onClose}>
      <p className="quiet small">{say.rememberedOnThisComputer()}</p>
      <Pick label={say.whatIsIt()} autoFocus items={items} none={say.noDeviceTypeMatches()} onPick={onPick} />
    </Sheet>
  );
}
