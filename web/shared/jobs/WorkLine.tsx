import { Button, chakra } from '@chakra-ui/react';
import { Progress } from '#web/shared/parts/index.ts';
import { common, work as say } from '#words/index.ts';
import type { Task } from './queue.ts';
import { isUnderWay } from './useWork.ts';

interface Props {
  readonly task: Pick<Task, 'state' | 'what' | 'done' | 'leftS' | 'error'> | null;
  /** What it is about, where that is not plain from where it stands. */
  readonly name?: string | undefined;
  readonly width?: string;
  readonly onStop: () => void;
  readonly onAgain?: () => void;
  readonly onDrop?: () => void;
}

/** A failure in a sentence. */
export const failureOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** How far a job has come, with its stop; or why it ended, with the way to start it again. */
export function WorkLine({ task, name = '', width, onStop, onAgain, onDrop }: Props) {
  if (!task) return null;
  const about = name && `${name}: `;
  if (!isUnderWay(task as Task))
    return (
      <chakra.span className="row" role="alert">
        <span className={task.state === 'failed' ? 'fix' : 'watch'}>
          {about}
          {task.state === 'failed' ? failureOf(task.error) : say.stopped()}
        </span>
        {onAgain && <Button onClick={onAgain}>{say.startAgain()}</Button>}
        {onDrop && (
          <Button variant="plain" onClick={onDrop}>
            {say.discard()}
          </Button>
        )}
      </chakra.span>
    );
  const stage = task.state === 'waiting' ? say.waiting() : say.stages[task.what]();
  return (
    <chakra.span className="row">
      <Progress value={task.done} label={name || stage} {...(width ? { width } : {})} />
      <span role="status" className="quiet">
        {about}
        {task.state === 'waiting'
          ? stage
          : say.stageAt({
              stage,
              share: task.done,
              left: task.leftS === null ? '' : say.left({ seconds: Math.ceil(task.leftS) }),
            })}
      </span>
      <Button onClick={onStop}>{common.stop()}</Button>
    </chakra.span>
  );
}
