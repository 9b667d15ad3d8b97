import { Button, chakra } from '@chakra-ui/react';
import { useEffect, useMemo, useState } from 'react';
import type { RigVersion } from '#api/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { mapSheet } from '#core/output/sheets/index.ts';
import { compareRigs, type Difference } from '#core/routing/variants/index.ts';
import { evaluationAt, isTooLarge } from '#core/signal/index.ts';
import { api, sayProblem } from '#web/shared/store/index.ts';
import { versions as say, textOf } from '#words/index.ts';

const SHOWN = 12;

interface Props {
  readonly rigId: string;
  readonly version: RigVersion;
  readonly present: Rig | null;
  readonly onBringBack: (version: RigVersion, rig: Rig) => void;
}

/** One earlier version: what is different now, its map, and the button that brings it back. */
export function VersionLook({ rigId, version, present, onBringBack }: Props) {
  const { data, error } = api.useVersionQuery({ id: rigId, revision: version.revision });
  const rig = data?.document;
  const differences = useMemo(() => {
    if (!rig || !present || isTooLarge(rig)) return [];
    const { devices, leads, settings } = compareRigs(rig, present);
    return [...devices, ...leads, ...settings];
  }, [rig, present]);
  if (error) return <p role="alert">{sayProblem(error)}</p>;
  if (!rig) return <p className="quiet">{say.readingThisVersion()}</p>;
  return (
    <section aria-label={say.version()}>
      <p className="row">
        <Button variant="solid" onClick={() => onBringBack(version, rig)}>
          {say.bringBackThisVersion()}
        </Button>
      </p>
      {present && <Differences list={differences} />}
      {isTooLarge(rig) ? <p className="quiet">{say.tooLargeToBe()}</p> : <MapOf rig={rig} />}
    </section>
  );
}

const WHERE: Record<Difference['where'], string> = {
  first: say.inThisVersionNot(),
  second: say.nowNotInThis(),
  both: '',
};

function Differences({ list }: { list: readonly Difference[] }) {
  if (list.length === 0) return <p className="quiet">{say.devicesCablesAndSettings()}</p>;
  return (
    <>
      <ul>
        {list.slice(0, SHOWN).map((d) => (
          <li key={`${d.where} ${d.id}`}>
            {WHERE[d.where]}
            {textOf(d.says)}
          </li>
        ))}
      </ul>
      {list.length > SHOWN && <p className="quiet">{say.andMore({ SHOWN: list.length - SHOWN })}</p>}
    </>
  );
}

/** The map as it is printed: a picture, so that nothing in it can be mistaken for the present. */
function MapOf({ rig }: { rig: Rig }) {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    const made = URL.createObjectURL(
      new Blob([mapSheet(rig, evaluationAt(rig, null), 'a4')], { type: 'image/svg+xml' }),
    );
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [rig]);
  return (
    url && <chakra.img src={url} alt={say.mapInThisVersion({ rig: rig.name })} maxWidth="100%" maxHeight="420px" />
  );
}
