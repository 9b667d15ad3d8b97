import { Button, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { findTypes, type Rig } from '#core/model/rig/index.ts';
import { addNamed, boxesNamed, type NamedBox } from '#core/routing/wiring/index.ts';
import { Choice, off, Sheet, Table } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { wire as say } from '#words/index.ts';

type Found =
  | { readonly at: 'asking' }
  | { readonly at: 'unnamed' }
  | { readonly at: 'refused'; readonly why: string }
  | { readonly at: 'there'; readonly boxes: readonly NamedBox[] };

/** Devices that this computer's browser lists; without permission, only their number. */
async function look(ask: boolean): Promise<Found> {
  const media = navigator.mediaDevices as MediaDevices | undefined;
  if (!media?.enumerateDevices) return { at: 'refused', why: say.thisBrowserListsNo() };
  try {
    if (ask) for (const track of (await media.getUserMedia({ audio: true })).getTracks()) track.stop();
    const ends = await media.enumerateDevices();
    if (ends.length > 0 && ends.every((e) => e.label === '')) return { at: 'unnamed' };
    return { at: 'there', boxes: boxesNamed(ends) };
  } catch (error) {
    const denied = error instanceof DOMException && error.name === 'NotAllowedError';
    return {
      at: 'refused',
      why: denied ? say.microphoneAccessWasDenied() : say.cantListDevicesThere(),
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
    <Sheet title={say.whatThisComputerLists()} onClose={onClose}>
      {found.at === 'asking' && <p className="quiet">{say.lookingForDevices()}</p>}
      {found.at === 'refused' && <p>{found.why}</p>}
      {found.at === 'unnamed' && (
        <>
          <p>{say.browsersListDeviceNames()}</p>
          <chakra.p marginTop="10px">
            <Button variant="solid" onClick={() => void look(true).then(setFound)}>
              {say.listMyDevices()}
            </Button>
          </chakra.p>
        </>
      )}
      {found.at === 'there' && found.boxes.length === 0 && <p>{say.onlyWhatIsBuilt()}</p>}
      {found.at === 'there' && found.boxes.length > 0 && (
        <NamedList
          rig={rig}
          boxes={found.boxes}
          onAdd={(boxes) => {
            if (dispatch(applyStep(addNamed(rig, boxes), say.addDeviceWith({ boxes: boxes.length })))) onClose();
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
  audioinput: say.input(),
  audiooutput: say.output(),
  videoinput: say.video(),
};

function NamedList({ rig, boxes, onAdd }: ListProps) {
  const known = new Set(rig.devices.map((d) => d.name));
  const [typeIds, setTypeIds] = useState(boxes.map((b) => (known.has(b.name) ? '' : b.typeId)));
  const types = [...findTypes(rig).values()].filter((t) => t.ports.some((p) => p.connector.includes('usb')));
  const options = [['', say.leaveOut()], ...types.map((t) => [t.id, t.name] as const)] as const;
  const chosen = boxes.flatMap((box, i) => (typeIds[i] ? [{ ...box, typeId: typeIds[i] }] : []));
  return (
    <>
      <Table tight>
        <tbody>
          {boxes.map((box, i) => (
            <tr key={box.name}>
              <td>
                {box.name}
                <div className="small quiet">{box.kinds.map((k) => KINDS[k]).join(', ')}</div>
              </td>
              <td>
                <Choice
                  label={say.whatIs({ box: box.name })}
                  value={typeIds[i] ?? ''}
                  options={options}
                  onChange={(id) => setTypeIds(typeIds.map((t, j) => (j === i ? id : t)))}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <chakra.p marginTop="12px">
        <Button
          variant="solid"
          {...off(chosen.length === 0 ? say.chooseDevicesFirst() : null)}
          onClick={() => onAdd(chosen)}
        >
          {say.addDeviceWith({ boxes: chosen.length })}
        </Button>
      </chakra.p>
    </>
  );
}
