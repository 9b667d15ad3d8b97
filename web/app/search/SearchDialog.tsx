import { Button } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { useMatch, useNavigate } from 'react-router';
import { Pick, Sheet, showKeys, useKeyHints } from '#web/shared/parts/index.ts';
import { findingsOf, selectRig, useAppSelector } from '#web/shared/store/index.ts';
import { common, glossary, search as say, type TermId } from '#words/index.ts';
import { actsOn } from './acts.ts';
import { findsIn } from './finds.ts';

/** Pages, devices, terms, issues and actions, by any of their names; what is chosen is opened, done or explained. */
export function SearchDialog({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const rigId = useMatch('/rigs/:rigId/*')?.params.rigId;
  const rig = useAppSelector(selectRig);
  const hints = useKeyHints();
  const [term, setTerm] = useState<TermId | null>(null);
  // As the page was when the search was opened: what is found does not move meanwhile.
  const acts = useState(() => {
    const page = document.getElementById('page');
    return page ? actsOn(page, new Set(hints.map((hint) => hint.label))) : [];
  })[0];
  const finds = useMemo(
    () => findsIn(rigId && rig ? { rigId, rig, findings: findingsOf(rig) } : null, hints, acts, showKeys),
    [rigId, rig, hints, acts],
  );
  const take = (id: string) => {
    const found = finds.find((f) => f.id === id)!;
    if ('explains' in found) return setTerm(found.explains);
    onClose();
    if ('go' in found) navigate(found.go);
    // What a key does begins on the view, once this is gone.
    else setTimeout(found.run);
  };
  return (
    <Sheet title={say.title()} onClose={onClose}>
      {term ? (
        <Explained id={term} onBack={() => setTerm(null)} />
      ) : (
        <Pick
          label={say.search()}
          items={finds}
          onPick={take}
          placeholder={say.placeholder()}
          none={say.none()}
          autoFocus
        />
      )}
    </Sheet>
  );
}

function Explained({ id, onBack }: { id: TermId; onBack: () => void }) {
  const { title, says, names } = glossary[id];
  return (
    <section aria-label={title()}>
      <h2>{title()}</h2>
      <p>{says()}</p>
      {names() !== '' && <p className="quiet">{say.otherNames({ names: names() })}</p>}
      <p className="row">
        <Button autoFocus onClick={onBack}>
          {say.back()}
        </Button>
        <span className="small quiet">{common.close()}: Esc</span>
      </p>
    </section>
  );
}
