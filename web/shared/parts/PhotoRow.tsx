import type { Photo } from '#core/model/rig/index.ts';
import { BareButton } from './buttons.tsx';
import { formatDate } from './format.ts';

interface Props {
  readonly photos: readonly Photo[];
  readonly urlOf: (sha256: string) => string;
  readonly onOpen: (photo: Photo) => void;
}

/** Photographs in a row, small; one is pressed to see it large. */
export function PhotoRow({ photos, urlOf, onOpen }: Props) {
  if (photos.length === 0) return null;
  return (
    <p className="photos">
      {photos.map((photo) => (
        <BareButton key={photo.sha256} title={formatDate(photo.at)} onClick={() => onOpen(photo)}>
          <img src={urlOf(photo.sha256)} alt={photo.name} loading="lazy" />
        </BareButton>
      ))}
    </p>
  );
}
