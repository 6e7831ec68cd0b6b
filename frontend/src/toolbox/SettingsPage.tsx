import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link } from 'react-router';
import { client, type Settings } from '../api/client';
import type { components } from '../api/schema';
import { meQuery, settingsQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { moment } from '../app/time';
import { useTyped } from '../app/useTyped';
import { Leaving } from './Leaving';
import { Logo } from './Logo';
import { Keeping, OnReports, PartsAndPrices, Written, type Typed } from './settingsGroups';

/** What the works decides for itself. */
export function SettingsPage() {
  const settings = useQuery(settingsQuery);
  const me = useQuery(meQuery);
  return (
    <div className="page">
      <div className="sheet-head">
        <h1>Settings of the works</h1>
        {me.data?.role === 'lead' && (
          <>
            <Link className="btn btn-outline-primary" to="/toolbox/backups">
              Backups
            </Link>
            <Link className="btn btn-outline-primary" to="/toolbox/changes">
              Every change
            </Link>
          </>
        )}
      </div>
      <Loaded query={settings} what="the settings">
        {(kept) => <SettingsForm kept={kept} />}
      </Loaded>
    </div>
  );
}

const GROUPS = [
  ['On reports', OnReports],
  ['How things are written here', Written],
  ['Parts and prices', PartsAndPrices],
  ['What is kept', Keeping],
] as const;

function SettingsForm({ kept }: { kept: Settings }) {
  const me = useQuery(meQuery);
  const [changed, setChanged] = useState<Partial<Typed>>({});
  const save = useTyped(
    // The choices of the form are those there are.
    (body) => client.PUT('/api/settings', { body: body as components['schemas']['KeepSettingsRequest'] }),
    // Everything typed on a page goes by what it was loaded with: the page begins anew.
    () => window.location.reload(),
  );
  const lead = me.data?.role === 'lead';
  const put = (name: keyof Typed) => (text: string) => setChanged((now) => ({ ...now, [name]: text }));
  return (
    <>
      <form
        className="settings"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate(changed);
        }}
      >
        <div className="two-columns">
          {GROUPS.map(([name, Group]) => (
            <fieldset key={name} className="panel" disabled={!lead}>
              <legend>{name}</legend>
              <Group typed={{ ...kept, ...changed }} put={put} />
            </fieldset>
          ))}
        </div>
        <ProblemNote error={save.error} />
        {lead ? (
          <Button type="submit" disabled={save.isPending || Object.keys(changed).length === 0}>
            Save settings
          </Button>
        ) : (
          <p className="quiet">A lead changes them.</p>
        )}
        <p className="quiet">
          What was typed before keeps the mark it was typed with. Pages that are open go on with the old
          settings until they are loaded anew.
          {kept.by && kept.at ? ` Last changed by ${kept.by}, ${moment(kept.at)}.` : ''}
        </p>
      </form>
      {lead && (
        <div className="two-columns apart">
          <Logo kept={kept} />
          <Leaving />
        </div>
      )}
    </>
  );
}
