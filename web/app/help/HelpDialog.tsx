import { Button } from '@chakra-ui/react';
import { useLocation, useMatch, useNavigate } from 'react-router';
import { useStartTour } from '#web/features/live/tour/index.ts';
import { Details, type KeyHint, Sheet, StateMark, showKeys, Table, useKeyHints } from '#web/shared/parts/index.ts';
import { selectTour, useAppSelector } from '#web/shared/store/index.ts';
import { glossary, guides, help as say, tour } from '#words/index.ts';
import { pageAt } from '../pages.ts';

/** Help in place: the question that the page answers, its keys, its terms; from here to the guides and the tour. */
export function HelpDialog({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const { wasDone } = useAppSelector((state) => selectTour(state));
  const { busy, failed, start } = useStartTour();
  const rigId = useMatch('/rigs/:rigId/*')?.params.rigId;
  const page = pageAt(useLocation().pathname);
  const hints = useKeyHints();
  return (
    <Sheet title={page ? say.helpFor({ page: page.label() }) : say.title()} onClose={onClose}>
      {page && <p>{page.answers()}</p>}
      <KeyTable title={say.keysHere()} hints={hints.filter((hint) => !hint.everywhere)} />
      {page && (
        <>
          <h2>{say.terms()}</h2>
          {page.terms.map((id) => (
            <Details key={id} summary={glossary[id].title()}>
              <p className="help-term">{glossary[id].says()}</p>
            </Details>
          ))}
        </>
      )}
      <h2>{say.more()}</h2>
      <p className="row">
        <Button loading={busy} onClick={async () => (await start()) && onClose()}>
          {wasDone ? say.startTourAgain() : say.startTour()}
        </Button>
        {rigId && (
          <Button
            onClick={() => {
              onClose();
              navigate(`/rigs/${rigId}/how`);
            }}
          >
            {guides.title()}
          </Button>
        )}
      </p>
      <div role="status">
        {busy && <p className="quiet">{tour.starting()}</p>}
        {failed && (
          <p>
            <StateMark state="fix" /> {failed}
          </p>
        )}
      </div>
      <KeyTable title={say.keysEverywhere()} hints={hints.filter((hint) => hint.everywhere)} />
    </Sheet>
  );
}

/** Two keys that do the same stand once. */
function KeyTable({ title, hints }: { title: string; hints: readonly KeyHint[] }) {
  const once = [...new Map(hints.map((hint) => [hint.keys + hint.label, hint])).values()];
  return (
    once.length > 0 && (
      <>
        <h2>{title}</h2>
        <Table tight>
          <tbody>
            {once.map((hint) => (
              <tr key={hint.keys + hint.label}>
                <td>
                  <kbd>{showKeys(hint.keys)}</kbd>
                </td>
                <td>{hint.label}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </>
    )
  );
}
