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
            <p className="row" style={{ marginLeft: 132 }}>
              {say.makeUpGain()}
              <NumberInput
                label={say.makeUpGainDb()}
                value={treatment.makeupDb}
                min={-24}
                max={24}
                onValue={(db) => onMakeup(db ?? 0)}
              />
              {say.db()}
            </p>
          )}
        </li>
      ))}
    </ol>
  );
}

function Step({ step, treatment, onStep, onField }: Omit<Props, 'onMakeup'> & { step: StepWords }) {
  const values = treatment[step.id] as Readonly<Record<string, number>> | null;
  return (
    <div className="row" style={{ flexWrap: 'wrap', minHeight: 38, columnGap: 7 }}>
      <span className="row" style={{ width: 124 }}>
        <Check label={step.name} checked={values !== null} onCheck={(on) => onStep(step.id, on)} />
        <Term id={TERM_OF[step.id]}>{step.name}</Term>
      </span>
      {values === null ? (
        <span className="quiet">{say.off()}</span>
      ) : (
        <span className="row" style={{ flexWrap: 'wrap', columnGap: 7 }}>
          {step.fields.map((f) => (
            <span key={f.key} className="row" style={{ gap: 4 }}>
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
            </span>
          ))}
        </span>
      )}
    </div>
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
