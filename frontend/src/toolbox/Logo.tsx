import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Button } from 'react-bootstrap';
import { client, posted, unwrap, type Settings } from '../api/client';
import { settingsQuery } from '../api/queries';
import { FileButton } from '../app/FileButton';
import { ProblemNote } from '../app/ProblemNote';

/** The picture at the head of reports. A record that was signed keeps the one it was signed with. */
export function Logo({ kept }: { kept: Settings }) {
  const cache = useQueryClient();
  // The picture alone: what is typed on this page goes by the settings it was loaded with.
  const onSuccess = ({ logo }: Settings) =>
    cache.setQueryData(settingsQuery.queryKey, (was) => was && { ...was, logo });
  const send = useMutation({
    retry: false,
    mutationFn: (file: File) => {
      const body = new FormData();
      body.append('file', file);
      return posted<Settings>('/api/settings/logo', body);
    },
    onSuccess,
  });
  const remove = useMutation({ mutationFn: () => unwrap(client.DELETE('/api/settings/logo')), onSuccess });
  return (
    <section className="panel" aria-label="Picture on reports">
      <h2>Picture on reports</h2>
      {kept.logo ? (
        <img
          className="logo"
          src={`/api/settings/logo?${kept.logo.slice(0, 8)}`}
          alt="The picture on reports"
        />
      ) : (
        <p>None yet. PNG, JPEG or WebP, up to 1 MB; it is printed 48 mm wide or 14 mm high.</p>
      )}
      <FileButton
        label="Picture on reports, file"
        accept="image/png,image/jpeg,image/webp"
        off={send.isPending}
        onFile={(file) => send.mutate(file)}
      >
        {kept.logo ? 'Choose another' : 'Choose a picture'}
      </FileButton>{' '}
      {kept.logo && (
        <Button variant="outline-primary" disabled={remove.isPending} onClick={() => remove.mutate()}>
          Take it off
        </Button>
      )}
      <ProblemNote error={send.error ?? remove.error} />
    </section>
  );
}
