import { Button, chakra, Input } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { sayTask } from '#core/live/next/index.ts';
import { dropTask, findDevice, findTypes, markDone, type Photo, type Rig, tickTask } from '#core/model/rig/index.ts';
import type { Answer, Finding } from '#core/rules/index.ts';
import { deviceName, type Evaluation } from '#core/signal/index.ts';
import {
  BoxFace,
  formatDate,
  LineButton,
  off,
  Page,
  PhotoRow,
  rich,
  Sheet,
  StateMark,
  sentence,
  Table,
  useKey,
  useKeyHint,
} from '#web/shared/parts/index.ts';
import {
  applyStep,
  photoUrl,
  selectEvaluation,
  selectRig,
  selectWireFindings,
  useAppDispatch,
  useAppSelector,
} from '#web/shared/store/index.ts';
import { common, feetBeside, frame, lengthMOf, toDo as say, textOf } from '#words/index.ts';
import { type DeskItem, itemsByBox } from './items.ts';
import { useQuestions } from './useQuestions.ts';

/** To-do list: questions and tasks in one list by device, answered and ticked by keys. */
export function ToDoScreen() {
  const rig = useAppSelector(selectRig);
  const evaluation = useAppSelector(selectEvaluation);
  const findings = useAppSelector(selectWireFindings);
  return rig && evaluation ? <AtTheDesk rig={rig} evaluation={evaluation} findings={findings} /> : null;
}

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly findings: readonly Finding[];
}

/** Maximum number of questions shown at a time: those that affect most. */
const MAX_ASKED = 12;
const DIGITS = [1, 2, 3, 4, 5, 6, 7, 8, 9];

function AtTheDesk({ rig, evaluation, findings }: Props) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const all = useQuestions(rig, evaluation, findings);
  const boxes = itemsByBox(rig, all.slice(0, MAX_ASKED));
  const items = boxes.flatMap((b) => b.items);
  const [params] = useSearchParams();
  const [at, setAt] = useState<{ id: string; index: number }>({ id: params.get('at') ?? '', index: 0 });
  // The answered item is gone: the item in its place is next.
  const found = items.findIndex((i) => i.id === at.id);
  const index = found >= 0 ? found : Math.min(at.index, items.length - 1);
  const item = items[index];
  const go = (to: number) => {
    const next = items[(to + items.length) % items.length];
    if (next) setAt({ id: next.id, index: items.indexOf(next) });
  };
  const answer = (given: Answer | undefined) => {
    if (!given || !item) return;
    setAt({ id: '', index });
    dispatch(
      applyStep(
        markDone(rig, given.changes),
        say.answeredStep({ item: sayItem(rig, item), given: textOf(given.label) }),
      ),
    );
  };
  const tick = (done: boolean) => {
    if (!item?.task) return;
    setAt({ id: '', index });
    const edit = done ? tickTask(rig, item.task) : dropTask(rig, item.task);
    dispatch(applyStep(edit, `${done ? say.done() : say.cancelledStep()}: ${sayItem(rig, item)}`));
  };
  useKey('j,arrowdown', say.next(), () => go(index + 1), items.length > 1);
  useKey('k,arrowup', say.previous(), () => go(index - 1), items.length > 1);
  useKey('y', say.yesThatsRight(), () => answer(item?.question?.answers[0]), Boolean(item?.question));
  useKeyHint('1', say.firstAnswerSecondAnd());
  useKey('d', say.done(), () => tick(true), Boolean(item?.task));
  useKey('n', say.cancelThisTask(), () => tick(false), Boolean(item?.task));
  useKey('escape', common.back(), () => navigate(-1));
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const n = DIGITS.indexOf(Number(e.key));
      if (n >= 0 && !(e.target instanceof HTMLInputElement)) answer(item?.question?.answers[n]);
    };
    document.addEventListener('keydown', press);
    return () => document.removeEventListener('keydown', press);
  });
  const questions = items.filter((i) => i.question).length;
  const asked = all.filter((q) => q.findings.length > 0).length;
  return (
    <Page title={frame.toDoList()} card={item && <ItemCard rig={rig} item={item} onAnswer={answer} onTick={tick} />}>
      <p className="quiet">
        {items.length === 0
          ? say.allDoneEverythingThat()
          : say.counts({ toCheck: asked, toDo: items.length - questions, more: all.length - asked })}
      </p>
      {boxes.map((box) => (
        <section key={box.deviceId} aria-label={deviceName(rig, box.deviceId)}>
          <h2>{deviceName(rig, box.deviceId)}</h2>
          <Table tight>
            <tbody>
              {box.items.map((i) => (
                <ItemRow
                  key={i.id}
                  rig={rig}
                  item={i}
                  chosen={i === item}
                  onChoose={() => setAt({ id: i.id, index: items.indexOf(i) })}
                />
              ))}
            </tbody>
          </Table>
        </section>
      ))}
    </Page>
  );
}

const sayItem = (rig: Rig, { task, question }: DeskItem): string =>
  task ? textOf(sayTask(rig, task)) : textOf(question?.asks ?? '');

interface RowProps {
  readonly rig: Rig;
  readonly item: DeskItem;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}

function ItemRow({ rig, item, chosen, onChoose }: RowProps) {
  const { question, task } = item;
  const decides = question?.decides ?? 0;
  return (
    <tr aria-selected={chosen}>
      <chakra.td width="26px" className="quiet">
        {question ? '?' : <StateMark state="watch" title={common.toDo()} />}
      </chakra.td>
      <td>
        <LineButton aria-pressed={chosen} onClick={onChoose}>
          {sayItem(rig, item)}
        </LineButton>
      </td>
      <td className="quiet small number">
        {question
          ? [
              decides > 0 && say.affectsResult({ decides }),
              question.findings.length > 0 && say.behindIssues({ count: question.findings.length }),
            ]
              .filter(Boolean)
              .join(', ')
          : say.openSince({ openedAt: formatDate(task!.openedAt) })}
      </td>
    </tr>
  );
}

/** A cable with its length. */
function LengthAnswer({ lengthM, onLength }: { lengthM: number; onLength: (lengthM: number) => void }) {
  const [text, setText] = useState(String(lengthM));
  const typed = lengthMOf(text);
  const valid = typed >= 0 && typed <= 1000;
  return (
    <chakra.form
      className="row"
      marginTop="8px"
      onSubmit={(e) => {
        e.preventDefault();
        if (valid) onLength(typed);
      }}
    >
      <Input
        aria-label={say.lengthM()}
        width="72px"
        textAlign="right"
        aria-invalid={!valid}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <span className="small quiet">{feetBeside(typed)}</span>
      <Button type="submit" {...off(valid ? null : say.lengthInMeters())}>
        {say.setLength()}
      </Button>
    </chakra.form>
  );
}

interface CardProps {
  readonly rig: Rig;
  readonly item: DeskItem;
  readonly onAnswer: (answer: Answer) => void;
  readonly onTick: (done: boolean) => void;
}

/** Where to look on the device, and what one may see there. */
function ItemCard({ rig, item, onAnswer, onTick }: CardProps) {
  const { question, task, deviceId, portId, settingId } = item;
  const device = findDevice(rig, deviceId);
  const type = findTypes(rig).get(device?.typeId ?? '');
  const [large, setLarge] = useState<Photo | null>(null);
  return (
    <aside className="card" aria-label={question ? say.toCheck() : say.toDo()}>
      <h2>{deviceName(rig, deviceId)}</h2>
      <chakra.p marginTop="6px">{sayItem(rig, item)}</chakra.p>
      {question && (
        <div className="answers">
          {question.answers.map((answer, i) => (
            <Button
              key={textOf(answer.label)}
              variant={answer.asDrawn ? 'solid' : 'outline'}
              onClick={() => onAnswer(answer)}
            >
              {sentence(textOf(answer.label))}
              {answer.asDrawn && ` (${common.assumed()})`} <kbd>{i + 1}</kbd>
            </Button>
          ))}
        </div>
      )}
      {question?.cable && (
        <LengthAnswer
          key={question.id}
          lengthM={question.cable.lengthM}
          onLength={(lengthM) => {
            const cable = { ...question.cable!, lengthM };
            onAnswer({ label: say.lengthAnswer({ lengthM }), asDrawn: false, changes: [{ cableId: cable.id, cable }] });
          }}
        />
      )}
      {task && (
        <chakra.p className="row" marginTop="10px">
          <Button variant="solid" onClick={() => onTick(true)}>
            {rich(say.doneD, {})}
          </Button>
          <Button onClick={() => onTick(false)}>{rich(say.cancelThisTaskN, {})}</Button>
        </chakra.p>
      )}
      {type && <BoxFace type={type} portId={portId} settingId={settingId} />}
      <PhotoRow photos={device?.photos ?? []} urlOf={photoUrl} onOpen={setLarge} />
      {large && (
        <Sheet title={`${large.name}, ${formatDate(large.at)}`} onClose={() => setLarge(null)}>
          <chakra.img src={photoUrl(large.sha256)} alt={`${device?.name}: ${large.name}`} maxWidth="100%" />
        </Sheet>
      )}
      {question && question.findings.length > 0 && (
        <>
          <h2>{say.ifAssumptionIsRight()}</h2>
          <ul>
            {question.findings.map((f) => (
              <li key={f.id}>{textOf(f.says)}</li>
            ))}
          </ul>
        </>
      )}
      {question && (question.decides ?? 0) > 0 && (
        <chakra.p className="quiet" marginTop="10px">
          {say.differentAnswerWouldChange({ pair: question.decides! })}
        </chakra.p>
      )}
      <chakra.p className="small quiet" marginTop="12px">
        {say.turnVolumesDownBefore()}
      </chakra.p>
    </aside>
  );
}
