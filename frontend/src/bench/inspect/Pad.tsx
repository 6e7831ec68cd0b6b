import { useRef } from 'react';
import { Button } from 'react-bootstrap';
import type { Feature, Job } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { useDraft } from '../../app/unit';
import { useSign } from '../../app/works';
import { StationPlan } from '../../drawing/StationPlan';
import { Photos } from '../job/Photos';
import { LookForm } from './LookPanel';
import { NotSaved } from './NotSaved';
import { Outcome } from './Outcome';
import type { PadFieldHandle } from './PadField';
import { PadForm } from './PadForm';
import { PadPanels, PadTools, WarmPart } from './PadTools';
import { usePad } from './usePad';

interface Props {
  job: Job;
  feature: Feature;
  phase: 'found' | 'left';
  /** Goes on to the next part, by the technician's own act; absent where there is none. */
  onNext?: (() => void) | undefined;
}

/** The reading pad: number, Enter, next station; the result and its verdict below as they stand. */
export function Pad({ job, feature, phase, onNext }: Props) {
  const size = feature.new_text
    ? `new ${feature.new_text} ${job.unit} · ${feature.limit_text}${feature.page ? ` · sheet page ${feature.page}` : ''}`
    : feature.kind === 'check'
      ? 'looked at, not measured'
      : 'the sheet gives no size';
  return (
    <section className="pad" aria-label="Reading pad">
      <h2>
        <span className="number-ring">{feature.number}</span>
        {feature.name}
        {phase === 'left' && !feature.press ? ', as left' : ''}
      </h2>
      <p className="quiet">{size}</p>
      <Taking job={job} feature={feature} phase={phase} onNext={onNext} />
      <Outcome job={job} feature={feature} phase={phase} />
    </section>
  );
}

function Taking({ job, feature, phase, onNext }: Props) {
  if (feature.kind === 'check') {
    return (
      <>
        <LookForm job={job} feature={feature} phase={phase} />
        {onNext && (phase === 'left' ? feature.look_left : feature.look) && (
          <p className="taken-all">
            Looked at.{' '}
            <Button variant="outline-primary" autoFocus onClick={onNext}>
              Next part
            </Button>
          </p>
        )}
        <Photos job={job} photos={feature.photos} of={{ feature: feature.key }} what={feature.name} />
      </>
    );
  }
  if (!feature.stations.length) return <p>Worked out from its two parts. Measure them and it is here.</p>;
  return <Entry job={job} feature={feature} phase={phase} onNext={onNext} />;
}

/** Readings of a part with stations: the plan, the number, what can be done beside it, and what was not taken. */
function Entry({ job, feature, phase, onNext }: Props) {
  const field = useRef<PadFieldHandle>(null);
  const degrees = useSign('temperature');
  const [partAt, setPartAt] = useDraft('', degrees);
  const pad = usePad({ job, feature, phase, partAt, field, onNext });
  const { state, dispatch, readings, pull } = pad;
  return (
    <>
      <div className="entry">
        <StationPlan
          feature={feature}
          readings={readings}
          station={state.station}
          onStation={(station) => dispatch({ type: 'set', change: { station } })}
        />
        <PadForm job={job} pad={pad} feature={feature} field={field} onNext={onNext} />
      </div>
      <PadTools pad={pad} job={job} feature={feature} phase={phase} />
      {state.warm && (
        <WarmPart
          pad={pad}
          job={job}
          feature={feature}
          degrees={degrees}
          partAt={partAt}
          onPartAt={setPartAt}
        />
      )}
      {state.arrived && <p className="notice">{state.arrived}</p>}
      <ProblemNote error={pull.error} />
      <NotSaved pad={pad} feature={feature} />
      <PadPanels pad={pad} job={job} feature={feature} phase={phase} />
    </>
  );
}
