import { Button, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { TakeRecord } from '#api/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { Check, figures, formatBytes, formatDate, Head, hidden, off, Table } from '#web/shared/parts/index.ts';
import { api } from '#web/shared/store/index.ts';
import { common, takes as say } from '#words/index.ts';

interface Props {
  readonly takes: readonly TakeRecord[];
  readonly loading: boolean;
  readonly rig: Rig | null;
  readonly onOpen: (ids: readonly string[]) => void;
}

const MAX_PICKED = 16;

/** The saved takes: open one, compare two, balance several as tracks. */
export function TakeChooser({ takes, loading, onOpen, rig }: Props) {
  const navigate = useNavigate();
  const { rigId } = useParams();
  const [picked, setPicked] = useState<readonly string[]>([]);
  const [remove] = api.useDeleteTakeMutation();
  const [asked, setAsked] = useState<string | null>(null);
  if (loading) return <p className="quiet">{say.loadingYourTakes()}</p>;
  if (takes.length === 0) return null;
  const toggle = (id: string) =>
    setPicked((all) => (all.includes(id) ? all.filter((p) => p !== id) : [...all, id].slice(-MAX_PICKED)));
  return (
    <>
      <div className="spread">
        <h2>{say.yourTakes()}</h2>
        <chakra.span className="row" marginTop="16px">
          <Button {...off(picked.length === 2 ? null : say.chooseTwoTakes())} onClick={() => onOpen(picked)}>
            {say.compareTwo()}
          </Button>
          <Button
            {...off(picked.length < 2 ? say.chooseSeveralTakes() : null)}
            onClick={() => void navigate(`${rigId ? `/rigs/${rigId}` : ''}/bench/join?takes=${picked.join(',')}`)}
          >
            {say.syncByContent()}
          </Button>
          <Button
            {...off(picked.length < 2 ? say.chooseSeveralTakes() : null)}
            onClick={() => void navigate(`${rigId ? `/rigs/${rigId}` : ''}/bench/balance?takes=${picked.join(',')}`)}
          >
            {say.mixAsTracks()}
          </Button>
        </chakra.span>
      </div>
      <Table tight>
        <Head
          columns={[
            hidden(say.select()),
            say.take(),
            figures(say.size()),
            say.added(),
            say.usedIn(),
            hidden(common.actions()),
          ]}
        />
        <tbody>
          {takes.map((take) => (
            <tr key={take.id}>
              <td>
                <Check
                  label={say.selectWith({ take: take.name })}
                  disabled={take.missing === true}
                  checked={picked.includes(take.id)}
                  onCheck={() => toggle(take.id)}
                />
              </td>
              <td>
                {take.missing ? (
                  take.name
                ) : (
                  <Button variant="plain" onClick={() => onOpen([take.id])}>
                    {take.name}
                  </Button>
                )}
                {take.missing && <span className="fix small"> {say.itsFileIsMissing()}</span>}
                {take.fault && <span className="watch small"> {take.fault}</span>}
              </td>
              <td className="number quiet">{formatBytes(take.bytes)}</td>
              <td className="quiet">{formatDate(take.addedAt)}</td>
              <td className="quiet">
                {rig?.measurements.some((m) => m.takeId === take.id)
                  ? say.thisRig()
                  : take.usedBy.length > 0
                    ? say.rig()
                    : ''}
              </td>
              <td className="number">
                {asked === take.id ? (
                  <chakra.span className="row" justifyContent="flex-end">
                    <span className="small">{say.thisDeletesFilePermanentlyMeasured()}</span>
                    <Button
                      onClick={() => {
                        setAsked(null);
                        void remove(take.id);
                      }}
                    >
                      {say.deleteTake()}
                    </Button>
                    <Button onClick={() => setAsked(null)}>{common.cancel()}</Button>
                  </chakra.span>
                ) : (
                  <Button onClick={() => setAsked(take.id)}>{common.delete()}</Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}
