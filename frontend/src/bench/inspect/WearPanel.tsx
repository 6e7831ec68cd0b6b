import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { Modal } from 'react-bootstrap';
import type { Feature, Job } from '../../api/client';
import { wearQuery } from '../../api/queries';
import { Loaded } from '../../app/Loading';
import { useUnit } from '../../app/unit';
import { WorkingLink } from '../../app/WorkingLink';

// A chart's axes are fetched when one is opened: the screen of a job is there sooner without them.
const WearChart = lazy(async () => ({ default: (await import('../../drawing/WearChart')).WearChart }));

/** How one part wears: its lives drawn, the rate, the hours and the date to the limit. */
export function WearPanel({ job, feature, onHide }: { job: Job; feature: Feature; onHide: () => void }) {
  const { unit } = useUnit();
  const wear = useQuery(wearQuery(job.number, feature.key, unit, job.version));
  return (
    <Modal show onHide={onHide} centered size="lg" aria-labelledby="wear-title">
      <Modal.Header closeButton>
        <Modal.Title id="wear-title">Wear of {feature.name.toLowerCase()}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Loaded query={wear} what="its wear">
          {(data) => (
            <>
              <Suspense fallback={<p className="quiet">One moment …</p>}>
                <WearChart wear={data} unit={unit} />
              </Suspense>
              {data.forecast ? (
                <p>
                  {data.forecast.sentence} {data.forecast.date}{' '}
                  <WorkingLink working={data.forecast.working} />
                </p>
              ) : (
                <p className="quiet">
                  Two sizes at known hours give a rate. Enter the hours run in Prepare, and measure.
                </p>
              )}
              {data.odd.map((odd) => (
                <p className="notice" key={odd}>
                  {odd}
                </p>
              ))}
            </>
          )}
        </Loaded>
      </Modal.Body>
    </Modal>
  );
}
