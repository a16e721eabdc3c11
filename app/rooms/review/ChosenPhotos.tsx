import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import type { ReviewText } from '~core/log/trial';
import { KeptText } from '../../form/KeptText';
import { blobUrls } from '../../store/blobUrls';

type Chosen = NonNullable<ReviewText['photos']>;

interface Props {
  photos: readonly { id: string; thumb: string; shows: string }[];
  chosen: Chosen;
  keep: (next: Chosen) => void;
}

/** Photos of the log that go into the review, in their order, with what stands under them and what is read aloud. */
export function ChosenPhotos({ photos, chosen, keep }: Props) {
  const [urls, setUrls] = useState<ReadonlyMap<string, string>>(new Map());
  const chosenPhotos = chosen.flatMap((c) => {
    const photo = photos.find((p) => p.id === c.photoId);
    return photo ? [{ ...c, photo }] : [];
  });
  const wanted = chosenPhotos.map((s) => s.photo.thumb).join(' ');
  useEffect(() => {
    let gone = false;
    void blobUrls(wanted.split(' ').filter(Boolean)).then((u) => !gone && setUrls(u));
    return () => {
      gone = true;
    };
  }, [wanted]);
  const change = (id: string, over: Partial<Chosen[number]>) =>
    keep(chosen.map((c) => (c.photoId === id ? { ...c, ...over } : c)));
  const up = (i: number) =>
    keep(chosen.map((c, j) => (j === i - 1 ? chosen[i]! : j === i ? chosen[i - 1]! : c)));
  return (
    <details open={chosenPhotos.length > 0}>
      <summary>Photos</summary>
      <div className="stack" style={{ paddingTop: '0.6rem' }}>
        {chosenPhotos.map(({ photoId, caption, alt, photo }, i) => (
          <section key={photoId} aria-label={photo.shows} className="chosen-photo">
            {urls.get(photo.thumb) ? (
              <img src={urls.get(photo.thumb)} alt={alt || photo.shows} />
            ) : (
              <p className="small quiet">not on this device</p>
            )}
            <div className="stack tight">
              <KeptText
                label="Caption"
                value={caption}
                placeholder={photo.shows}
                onKeep={(text) => change(photoId, { caption: text })}
              />
              <KeptText
                label="For who can’t see it"
                value={alt}
                placeholder={photo.shows}
                onKeep={(text) => change(photoId, { alt: text })}
              />
              <span className="inline-row">
                {i > 0 && (
                  <Button size="small" color="inherit" onClick={() => up(i)}>
                    Up
                  </Button>
                )}
                <Button
                  size="small"
                  color="inherit"
                  aria-label={`Remove ${photo.shows}`}
                  onClick={() => keep(chosen.filter((c) => c.photoId !== photoId))}
                >
                  Remove
                </Button>
              </span>
            </div>
          </section>
        ))}
        <TextField
          select
          size="small"
          label="Add a photo"
          value=""
          onChange={(e) => keep([...chosen, { photoId: e.target.value, caption: '', alt: '' }])}
        >
          {photos
            .filter((p) => !chosen.some((c) => c.photoId === p.id))
            .map((p) => (
              <MenuItem key={p.id} value={p.id}>
                {p.shows}
              </MenuItem>
            ))}
        </TextField>
      </div>
    </details>
  );
}
