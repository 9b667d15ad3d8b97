import { Button } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { findTypes, type Rig } from '#core/rig/index.ts';
import { addNamed, boxesNamed, type NamedBox } from '#core/wire/index.ts';
import { Choice, count, Sheet } from '#web/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/store/index.ts';

type Found =
  | { readonly at: 'asking' }
  | { readonly at: 'unnamed' }
  | { readonly at: 'refused'; readonly why: string }
  | { readonly at: 'there'; readonly boxes: readonly NamedBox[] };

/** What this computer’s browser names; without leave it tells how many there are, but no names. */
async function look(ask: boolean): Promise<Found> {
  const media = navigator.mediaDevices as MediaDevices | undefined;
  if (!media?.enumerateDevices)
    return { at: 'refused', why: 'This browser names no devices. Open Mellow Tap at 127.0.0.1, or type the boxes.' };
  try {
    if (ask) for (const track of (await media.getUserMedia({ audio: true })).getTracks()) track.stop();
    const ends = await media.enumerateDevices();
    if (ends.length > 0 && ends.every((e) => e.label === '')) return { at: 'unnamed' };
    return { at: 'there', boxes: boxesNamed(ends) };
  } catch (error) {
    const denied = error instanceof DOMException && error.name === 'NotAllowedError';
    return {
      at: 'refused',
      why: denied
        ? 'The browser was not given leave. Allow the microphone for this page, or type the boxes.'
        : 'The browser cannot look: no microphone is there, or another program holds it. Type the boxes instead.',
    };
  }
}

/** Devices that the browser names, each with the type that it seems to be, put on the desk and plugged in. */
export function NamedDialog({ rig, onClose }: { rig: Rig; onClose: () => void }) {
  const dispatch = useAppDispatch();
  const [found, setFound] = useState<Found>({ at: 'asking' });
  useEffect(() => {
    void look(false).then(setFound);
  }, []);
  return (
    <Sheet title="What this computer names" onClose={onClose}>
      {found.at === 'asking' && <p className="quiet">Looking…</p>}
      {found.at === 'refused' && <p>{found.why}</p>}
      {found.at === 'unnamed' && (
        <>
          <p>
            Browsers tell no names before they may use the microphone. It is opened once and closed at once; nothing is
            heard or kept.
          </p>
          <p style={{ marginTop: 10 }}>
            <Button variant="solid" onClick={() => void look(true).then(setFound)}>
              Ask for the names
            </Button>
          </p>
        </>
      )}
      {found.at === 'there' && found.boxes.length === 0 && (
        <p>Nothing but what is built into the computer is named. Plug it in and look again, or type the boxes.</p>
      )}
      {found.at === 'there' && found.boxes.length > 0 && (
        <NamedList
          rig={rig}
          boxes={found.boxes}
          onAdd={(boxes) => {
            if (dispatch(applyStep(addNamed(rig, boxes), `Add ${count(boxes.length, 'box', 'boxes')}`))) onClose();
          }}
        />
      )}
    </Sheet>
  );
}

interface ListProps {
  readonly rig: Rig;
  readonly boxes: readonly NamedBox[];
  readonly onAdd: (boxes: readonly NamedBox[]) => void;
}

const KINDS: Record<NamedBox['kinds'][number], string> = {
  audioinput: 'input',
  audiooutput: 'output',
  videoinput: 'picture',
};

function NamedList({ rig, boxes, onAdd }: ListProps) {
  const known = new Set(rig.devices.map((d) => d.name));
  const [typeIds, setTypeIds] = useState(boxes.map((b) => (known.has(b.name) ? '' : b.typeId)));
  const types = [...findTypes(rig).values()].filter((t) => t.ports.some((p) => p.connector.includes('usb')));
  const options = [['', 'leave out'], ...types.map((t) => [t.id, t.name] as const)] as const;
  const chosen = boxes.flatMap((box, i) => (typeIds[i] ? [{ ...box, typeId: typeIds[i] }] : []));
  return (
    <>
      <table className="table tight">
        <tbody>
          {boxes.map((box, i) => (
            <tr key={box.name}>
              <td>
                {box.name}
                <div className="small quiet">{box.kinds.map((k) => KINDS[k]).join(', ')}</div>
              </td>
              <td>
                <Choice
                  label={`What ${box.name} is`}
                  value={typeIds[i] ?? ''}
                  options={options}
                  onChange={(id) => setTypeIds(typeIds.map((t, j) => (j === i ? id : t)))}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p style={{ marginTop: 12 }}>
        <Button variant="solid" disabled={chosen.length === 0} onClick={() => onAdd(chosen)}>
          Put {count(chosen.length, 'box', 'boxes')} on the desk
        </Button>
      </p>
    </>
  );
}
