import { Button, chakra } from '@chakra-ui/react';
import { useMemo, useRef, useState } from 'react';
import { catalogue, type DeviceType, findTypes, type Rig } from '#core/model/rig/index.ts';
import { readGear } from '#core/rules/index.ts';
import { announce, FileInput, Pick } from '#web/shared/parts/index.ts';
import { applyStep, selectRig, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { gear as say, textOf } from '#words/index.ts';
import { TypeEditor } from './editor/index.ts';
import { copyType, putType, sealedType } from './own.ts';
import { TypeSheet } from './TypeSheet.tsx';

/** Gear: every type of device and program, what is inside, and types of one's own. */
export function GearScreen() {
  const rig = useAppSelector(selectRig);
  return rig ? <Gear rig={rig} /> : null;
}

const LARGEST_BYTES = 500_000;

function Gear({ rig }: { rig: Rig }) {
  const dispatch = useAppDispatch();
  const chooser = useRef<HTMLInputElement>(null);
  const [chosen, setChosen] = useState(rig.types[0]?.id ?? catalogue[0]!.id);
  const [editing, setEditing] = useState<DeviceType | null>(null);
  const refuse = (says: string) => announce('fix', says);
  const types = findTypes(rig);
  const own = new Set(rig.types.map((t) => t.id));
  const items = useMemo(
    () =>
      [...rig.types, ...catalogue].map((t) => ({
        id: t.id,
        label: t.name,
        also: t.words?.join(', ') ?? '',
        note: rig.types.includes(t) ? say.yourOwn({ family: t.family }) : t.family,
      })),
    [rig.types],
  );
  const type = types.get(chosen) ?? catalogue[0]!;
  const choose = (id: string) => {
    setChosen(id);
    setEditing(null);
  };
  const keep = (next: DeviceType, label: string): boolean => {
    const done = dispatch(applyStep(putType(rig, next), label));
    if (done) setChosen(next.id);
    return done;
  };
  const importFile = async (file: File) => {
    if (file.size > LARGEST_BYTES) return refuse(say.isLargerThanKb({ file: file.name }));
    const read = readGear(await file.text());
    if (!read.ok) return refuse(say.wasNotImported({ file: file.name, says: textOf(read.faults[0]!.says) }));
    const fresh = catalogue.some((t) => t.id === read.type.id)
      ? copyType(rig, read.type, new Set(types.keys()))
      : read.type;
    if (keep(fresh, say.typeImportedFrom({ file: file.name })))
      announce('good', say.wasAddedUndoRemoves({ fresh: fresh.name }));
  };
  return (
    <main className="frame-page gear">
      <aside className="gear-list" aria-label={say.deviceTypes()}>
        <chakra.p className="row" marginBottom="8px">
          <Button onClick={() => chooser.current?.click()}>{say.importJson()}</Button>
          <Button
            onClick={() => setEditing(copyType(rig, sealedType(say.unknownDevice(), 1, 1), new Set(types.keys())))}
          >
            {say.addUnknownDevice()}
          </Button>
        </chakra.p>
        <Pick label={say.searchDeviceTypes()} items={items} onPick={choose} />
        <chakra.p className="small quiet" marginTop="6px">
          {say.builtInYourOwn({ builtIn: catalogue.length, types: rig.types.length })}
        </chakra.p>
        <FileInput
          chooser={chooser}
          label={say.deviceTypeFile()}
          accept=".json,application/json"
          onFile={(file) => void importFile(file)}
        />
      </aside>
      <div className="page">
        {editing ? (
          <TypeEditor
            key={editing.id}
            type={editing}
            onCancel={() => setEditing(null)}
            onSave={(next) => keep(next, say.type({ next: next.name })) && setEditing(null)}
          />
        ) : (
          <TypeSheet
            type={type}
            own={own.has(type.id)}
            used={rig.devices.filter((d) => d.typeId === type.id).length}
            onCopy={() => setEditing(copyType(rig, type, new Set(types.keys())))}
            onEdit={() => setEditing(type)}
            onRemove={() =>
              dispatch(applyStep({ kind: 'remove-type', typeId: type.id }, say.typeRemoved({ type: type.name })))
            }
          />
        )}
      </div>
    </main>
  );
}
