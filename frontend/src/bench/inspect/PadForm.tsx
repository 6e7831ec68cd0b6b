import type { RefObject } from 'react';
import { useQuery } from '@tanstack/react-query';
import { Button } from 'react-bootstrap';
import type { Feature, Gauge, Job } from '../../api/client';
import { fitQuery } from '../../api/queries';
import { day } from '../../app/time';
import { useUnit } from '../../app/unit';
import { WorkingLink } from '../../app/WorkingLink';
import { AddGauge } from '../set/AddGauge';
import { PadField, type PadFieldHandle } from './PadField';
import type { PadInHand } from './usePad';

interface Props {
  job: Job;
  pad: PadInHand;
  feature: Feature;
  field: RefObject<PadFieldHandle | null>;
  onNext?: (() => void) | undefined;
}

/** The number, Enter, and the gauge it is read from. */
export function PadForm({ job, pad, feature, field, onNext }: Props) {
  const { off, inHand } = pad;
  const { place, leaf } = placeOf(pad, feature);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        pad.enter(field.current?.text() ?? '');
      }}
    >
      <PadField ref={field} off={off} label={`Reading, ${place}${leaf ? `, ${leaf}` : ''}`} />
      <div className="pad-row">
        <Here pad={pad} place={place} leaf={leaf} />
        <Button type="submit" disabled={off}>
          {leaf && pad.state.goes === null ? 'It goes' : 'Save reading'}
        </Button>
      </div>
      <Understood pad={pad} />
      {pad.every && !off && <AllTaken stations={feature.stations.length} onNext={onNext} />}
      <GaugePick pad={pad} feature={feature} />
      {inHand && <GaugeNote job={job} feature={feature} gauge={inHand} />}
    </form>
  );
}

/** Where the number lands, and with a feeler set which leaf it is. */
function placeOf({ state, inHand }: PadInHand, feature: Feature): { place: string; leaf: string } {
  const place = feature.stations.find((s) => s.key === state.station)?.label ?? '';
  if (inHand?.kind !== 'feeler set') return { place, leaf: '' };
  return {
    place,
    leaf: state.goes === null ? 'leaf that goes' : `${state.goes} goes; leaf that does not`,
  };
}

function Here({ pad, place, leaf }: { pad: PadInHand; place: string; leaf: string }) {
  const { state, counted, waiting } = pad;
  const again = !leaf && counted.some((r) => r.station === state.station);
  return (
    <span className="here">
      {leaf || place}
      {again ? ' · repeat' : ''}
      {waiting.length > 0 && <small> · {waiting.length} on the way</small>}
    </span>
  );
}

/** How the last reading was read, where it could have meant two things. */
function Understood({ pad }: { pad: PadInHand }) {
  const last = pad.counted.at(-1);
  if (!last?.understood) return null;
  return (
    <p className="notice" role="status">
      {last.typed} was read as {last.understood}.
    </p>
  );
}

function AllTaken({ stations, onNext }: { stations: number; onNext?: (() => void) | undefined }) {
  return (
    <p className="taken-all">
      {stations > 1 ? `All ${stations} stations are` : 'It is'} taken. A number now is a repeat here.{' '}
      {onNext && (
        <Button variant="outline-primary" onClick={onNext}>
          Next part (Enter)
        </Button>
      )}
    </p>
  );
}

function GaugePick({ pad, feature }: { pad: PadInHand; feature: Feature }) {
  return (
    <label className="gauge-pick">
      Gauge in hand
      <select
        value={pad.state.gauge}
        disabled={pad.off}
        onChange={(event) => pad.dispatch({ type: 'set', change: { gauge: event.target.value } })}
      >
        {pad.gauges.map((g) => (
          <option key={g.tag} value={g.tag}>
            {g.tag} {g.kind} {g.range}
            {feature.made.includes(g.tag) ? '' : ', not made for this'}
            {g.overdue ? ', out of date' : ''}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Whether the gauge in hand can decide this at all, said before it is used. */
function GaugeNote({ job, feature, gauge }: NoteProps) {
  return (
    <>
      {feature.made.includes(gauge.tag) ? (
        <Ability job={job} feature={feature} gauge={gauge} />
      ) : (
        <p className="warning gauge-note">
          A {gauge.kind} is not made for this. {feature.gauge ? `${feature.gauge} is.` : <AddGauge />}
        </p>
      )}
      {gauge.overdue && (
        <p className="warning gauge-note">
          {gauge.tag} was due for calibration on {day(gauge.due)}. It measures, but a lead has to sign.
        </p>
      )}
    </>
  );
}

interface NoteProps {
  job: Job;
  feature: Feature;
  gauge: Gauge;
}

/** What a gauge that is made for it can do: told with the part of those likely in hand, asked for of the others. */
function Ability({ job, feature, gauge }: NoteProps) {
  const likely = feature.fits.find((f) => f.tag === gauge.tag);
  const { unit } = useUnit();
  const asked = useQuery({
    ...fitQuery(job.number, feature.key, gauge.tag, unit, job.version),
    enabled: !likely,
  });
  const fit = likely ?? asked.data;
  if (!fit) {
    const why = asked.isError ? 'could not be asked' : 'is being asked';
    return (
      <p className="quiet gauge-note">
        Whether {gauge.tag} can decide this {why}.
      </p>
    );
  }
  return (
    <p className={fit.decides ? 'quiet gauge-note' : 'warning gauge-note'}>
      {fit.sentence} {fit.working && <WorkingLink working={fit.working} />}
    </p>
  );
}
