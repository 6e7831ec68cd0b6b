import { useRef } from 'react';
import { newId, type Job, type Photo } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { useChange } from './useJob';

interface Props {
  job: Job;
  photos: Photo[];
  of: { feature: string } | { step: string };
  what: string;
}

/** Photographs of a part or a step, and one more by camera or file. */
export function Photos({ job, photos, of, what }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const attach = useChange('photos', job.number);
  const remove = useChange('photos/remove', job.number);
  return (
    <div className="photos">
      {photos.map((p) => (
        <figure key={p.id}>
          <a href={p.url} target="_blank" rel="noreferrer">
            <img src={p.url} alt={`${what}, by ${p.by}`} loading="lazy" />
          </a>
          {!job.signed && (
            <button
              type="button"
              aria-label={`Take off this photo of ${what}`}
              onClick={() => remove.mutate({ photo: p.id })}
            >
              ×
            </button>
          )}
        </figure>
      ))}
      {!job.signed && (
        <>
          <button
            type="button"
            className="tool"
            disabled={attach.isPending}
            onClick={() => input.current?.click()}
          >
            {attach.isPending ? 'Sending …' : 'Photo'}
          </button>
          <input
            ref={input}
            type="file"
            accept="image/jpeg,image/png,image/webp"
            hidden
            aria-label={`Photo of ${what}`}
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = '';
              if (file) attach.mutate({ id: newId(), file, ...of });
            }}
          />
        </>
      )}
      <ProblemNote error={attach.error ?? remove.error} />
    </div>
  );
}
