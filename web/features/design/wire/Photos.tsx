import { Button, chakra } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import type { Device, Photo } from '#core/model/rig/index.ts';
import { announce, FileInput, formatDate, off, PhotoRow, Sheet } from '#web/shared/parts/index.ts';
import { isOffline, photoUrl, sayProblem, uploads } from '#web/shared/store/index.ts';
import { common, wire as say } from '#words/index.ts';
import { asPhoto } from './photo.ts';

const MOST = 12;

interface Props {
  readonly device: Device;
  readonly onPhotos: (photos: readonly Photo[], label: string) => void;
}

/** Photographs of a device: viewed large, added from a file or a camera, removed. */
export function Photos({ device, onPhotos }: Props) {
  const chooser = useRef<HTMLInputElement>(null);
  const [sendPhoto] = uploads.useSendPhotoMutation();
  const [says, setSays] = useState<string | null>(null);
  const [open, setOpen] = useState<Photo | null>(null);
  const photos = device.photos ?? [];
  const add = async (file: File) => {
    setSays(say.savingPhoto());
    try {
      const { sha256 } = await sendPhoto(await asPhoto(file)).unwrap();
      setSays(null);
      if (photos.some((p) => p.sha256 === sha256)) return announce('watch', say.thisPhotoIsHere());
      const name =
        file.name
          .replace(/\.[^.]*$/, '')
          .trim()
          .slice(0, 120) || say.photo();
      onPhotos([...photos, { sha256, name, at: new Date().toISOString() }], say.photoWith({ device: device.name }));
    } catch (error) {
      setSays(null);
      announce(
        'fix',
        error instanceof Error
          ? error.message
          : isOffline(error)
            ? say.serverIsntRespondingChoose()
            : sayProblem(error),
      );
    }
  };
  return (
    <>
      <h2>{say.photos()}</h2>
      <PhotoRow photos={photos} urlOf={photoUrl} onOpen={setOpen} />
      <chakra.p marginTop="6px">
        <Button
          {...off(photos.length >= MOST ? say.noMorePhotos({ count: MOST }) : null)}
          onClick={() => chooser.current?.click()}
        >
          {say.addPhoto()}
        </Button>
      </chakra.p>
      <p className="small quiet">{say.storedOnThisComputer()}</p>
      <FileInput
        chooser={chooser}
        label={say.photoWith({ device: device.name })}
        accept="image/*"
        onFile={(file) => void add(file)}
      />
      <p aria-live="polite">{says}</p>
      {open && (
        <Sheet title={`${open.name}, ${formatDate(open.at)}`} onClose={() => setOpen(null)}>
          <chakra.img src={photoUrl(open.sha256)} alt={`${device.name}: ${open.name}`} maxWidth="100%" />
          <chakra.p marginTop="10px">
            <Button
              onClick={() => {
                setOpen(null);
                onPhotos(
                  photos.filter((p) => p !== open),
                  say.photoRemoved({ device: device.name }),
                );
              }}
            >
              {common.remove()}
            </Button>
          </chakra.p>
        </Sheet>
      )}
    </>
  );
}
