import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, type Gun } from '../api/client';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { useDraft } from '../app/unit';
import { useTyped } from '../app/useTyped';
import { useSign, type Entered } from '../app/works';

interface Props {
  /** The one weighed anew; none for a new one. */
  gun?: Gun | undefined;
  onSaved: (tag: string) => void;
}

/** A grease gun is known by what ten of its strokes weigh. */
export function GunForm({ gun, onSaved }: Props) {
  const cache = useQueryClient();
  const [tag, setTag] = useState(gun?.tag ?? '');
  const [grease, setGrease] = useState(gun?.grease ?? '');
  const sign = useSign('mass');
  const [ten, setTen] = useDraft('', sign);
  const weigh = useTyped(
    (body: { tag: string; grease: string; ten: string } & Entered) =>
      client.POST('/api/guns', { params: { query: { unit: body.unit } }, body }),
    () => {
      void cache.invalidateQueries({ queryKey: ['guns'] });
      onSaved(tag.trim());
    },
  );
  return (
    <form
      className="panel"
      onSubmit={(event) => {
        event.preventDefault();
        weigh.mutate({ tag, grease, ten });
      }}
    >
      <h2>Ten strokes on the scale</h2>
      <div className="try-check">
        <TextField
          short
          label="Written on the gun"
          keyboard="text"
          value={tag}
          maxLength={20}
          onChange={setTag}
        />
        <TextField short label={`Ten strokes weigh (${sign})`} value={ten} onChange={setTen} />
      </div>
      <TextField label="Grease in it" value={grease} maxLength={80} onChange={setGrease} />
      <ProblemNote error={weigh.error} onConfirm={weigh.confirm} />
      <Button type="submit" disabled={weigh.isPending}>
        Save weight
      </Button>
    </form>
  );
}
