import { chakra } from '@chakra-ui/react';
import type { Treatment } from '#core/audio/process/index.ts';
import { Check, NumberInput, Term } from '#web/shared/parts/index.ts';
import { process as say } from '#words/index.ts';
import { STEPS, type StepId, type StepWords } from './setup.ts';

interface Props {
  readonly treatment: Treatment;
  readonly onStep: (id: StepId, on: boolean) => void;
  readonly onField: (id: StepId, key: string, value: number) => void;
  readonly onMakeup: (db: number) => void;
}

/** What is done, in its order, each step as a sentence whose figures can be changed. */
export function StepList({ treatment, onStep, onField, onMakeup }: Props) {
  return (
    <ol className="plain-list" aria-label={say.processingChain()}>
      {STEPS.map((step) => (
        <li key={step.id}>
          <Step step={step} treatment={treatment} onStep={onStep} onField={onField} />
          {step.id === 'compressor' && (
            <chakra.p className="row" marginLeft="132px">
              {say.makeUpGain()}
              <NumberInput
                label={say.makeUpGainDb()}
                value={treatment.makeupDb}
                min={-24}
                max={24}
                onValue={(db) => onMakeup(db ?? 0)}
              />
              {say.db()}
            </chakra.p>
          )}
        </li>
      ))}
    </ol>
  );
}

function Step({ step, treatment, onStep, onField }: Omit<Props, 'onMakeup'> & { step: StepWords }) {
  const values = treatment[step.id] as Readonly<Record<string, number>> | null;
  return (
    <chakra.div className="row" flexWrap="wrap" minHeight="38px" columnGap="7px">
      <chakra.span className="row" width="124px">
        <Check label={step.name} checked={values !== null} onCheck={(on) => onStep(step.id, on)} />
        <Term id={TERM_OF[step.id]}>{step.name}</Term>
      </chakra.span>
      {values === null ? (
        <span className="quiet">{say.off()}</span>
      ) : (
        <chakra.span className="row" flexWrap="wrap" columnGap="7px">
          {step.fields.map((f) => (
            <chakra.span key={f.key} className="row" gap="4px">
              {f.before}
              <NumberInput
                label={`${step.name}, ${f.label}${f.unit ? `, ${f.unit}` : ''}`}
                width="54px"
                value={values[f.key]}
                min={f.min}
                max={f.max}
                onValue={(v) => v !== undefined && onField(step.id, f.key, v)}
              />
              {f.unit}
            </chakra.span>
          ))}
        </chakra.span>
      )}
    </chakra.div>
  );
}

const TERM_OF = {
  lowCut: 'low-cut',
  gate: 'gate',
  presence: 'presence',
  deEss: 'de-esser',
  compressor: 'compressor',
  limiter: 'limiter',
} as const;
