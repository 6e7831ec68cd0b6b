import { Button } from 'react-bootstrap';
import { newId, type Feature, type Job } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { moment } from '../../app/time';
import { StrikeOut } from '../job/StrikeOut';
import { useChange } from '../job/useJob';

/** A changed part that no size shows: somebody says that the new one is in, by name and time. */
export function NewPart({ job, feature }: { job: Job; feature: Feature }) {
  const confirm = useChange('new-parts', job.number);
  if (!feature.to_confirm) return null;
  const off = job.signed !== null || confirm.isPending;
  if (feature.renewed) {
    return (
      <div className="new-part settled">
        {feature.name}: new, {feature.renewed.by}, {moment(feature.renewed.at)}.{' '}
        <StrikeOut job={job} kind="new part" record={feature.renewed.id} what={feature.name}>
          not in after all
        </StrikeOut>
      </div>
    );
  }
  return (
    <div className="new-part">
      <p>
        <b>{feature.name}</b>: is a new one in? Nothing that is measured shows it.
      </p>
      <Button disabled={off} onClick={() => confirm.mutate({ id: newId(), feature: feature.key })}>
        The new part is in
      </Button>
      <ProblemNote error={confirm.error} />
    </div>
  );
}
