import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, type Settings } from '../api/client';
import { meQuery, settingsQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import { moment } from '../app/time';
import { useTyped } from '../app/useTyped';
import type { Entered } from '../app/works';

/** What the works decides for itself. */
export function SettingsPage() {
  const settings = useQuery(settingsQuery);
  return (
    <div className="page">
      <h1>Settings of the works</h1>
      <Loaded query={settings} what="the settings">
        {(kept) => <SettingsForm kept={kept} />}
      </Loaded>
    </div>
  );
}

type Mark = Entered['mark'];

function SettingsForm({ kept }: { kept: Settings }) {
  const me = useQuery(meQuery);
  const [mark, setMark] = useState(kept.decimal_mark as Mark);
  const [share, setShare] = useState(kept.new_share);
  const save = useTyped(
    (body: { decimal_mark: Mark; new_share: string } & Entered) => client.PUT('/api/settings', { body }),
    // Everything typed on a page goes by what it was loaded with: the page begins anew.
    () => window.location.reload(),
  );
  const lead = me.data?.role === 'lead';
  return (
    <form
      className="panel settings"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate({ decimal_mark: mark, new_share: share });
      }}
    >
      <fieldset disabled={!lead}>
        <legend>Decimal mark that is written here</legend>
        {(
          [
            ['point', 'A point: 37.975 is near thirty-eight. 1,750 is asked about.'],
            ['comma', 'A comma: 37,975 is near thirty-eight. 1.750 is asked about.'],
          ] as const
        ).map(([key, words]) => (
          <label key={key} className="tick">
            <input type="radio" name="mark" checked={mark === key} onChange={() => setMark(key)} /> {words}
          </label>
        ))}
      </fieldset>
      <fieldset disabled={!lead}>
        <legend>New parts</legend>
        <TextField
          short
          label="Ask when a new part is farther from its one new size than (% of its wear allowance)"
          value={share}
          onChange={setShare}
        />
      </fieldset>
      <ProblemNote error={save.error} />
      {lead ? (
        <Button type="submit" disabled={save.isPending}>
          Save settings
        </Button>
      ) : (
        <p className="quiet">A lead changes them.</p>
      )}
      <p className="quiet">
        What was typed before keeps the mark it was typed with. Pages that are open go on with the old one
        until they are loaded anew.
        {kept.by && kept.at ? ` Last changed by ${kept.by}, ${moment(kept.at)}.` : ''}
      </p>
    </form>
  );
}
