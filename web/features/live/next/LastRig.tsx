import { Button, chakra } from '@chakra-ui/react';
import { Link, useNavigate } from 'react-router';
import type { Rig } from '#core/model/rig/index.ts';
import { api } from '#web/shared/store/index.ts';
import '#words/core.ts';
import { next as say, textOf } from '#words/index.ts';
import { sayAhead, sayPlace } from './say.ts';
import { AheadProvider, useAhead } from './useAhead.tsx';

/** On the first page: the rig that was open last, with the one thing to do next there. */
export function LastRig({ rigId }: { rigId: string }) {
  const { data } = api.useRigQuery(rigId);
  return data ? (
    <AheadProvider rig={data.document}>
      <Last rigId={rigId} rig={data.document} />
    </AheadProvider>
  ) : null;
}

function Last({ rigId, rig }: { rigId: string; rig: Rig }) {
  const { ahead, steps } = useAhead();
  const [step] = steps;
  const navigate = useNavigate();
  return (
    <section className="last-rig" aria-label={say.lastRig()}>
      <div className="next-what">
        <p className="quiet small">{say.lastRig()}</p>
        <p className="next-says">
          <Link to={`/rigs/${rigId}/next`}>{rig.name}</Link>
        </p>
        <p className="next-why">
          {ahead ? `${sayAhead(ahead, steps.length)}. ` : ''}
          {step ? say.nextThere({ place: sayPlace(rig, step), step: textOf(step.says) }) : ahead ? '' : say.planning()}
        </p>
      </div>
      <chakra.span className="row" flex="none">
        <Button variant="solid" onClick={() => navigate(`/rigs/${rigId}/next`)}>
          {say.continueThere()}
        </Button>
      </chakra.span>
    </section>
  );
}
