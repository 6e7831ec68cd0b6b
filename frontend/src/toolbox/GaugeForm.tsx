import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button, Modal } from 'react-bootstrap';
import { client, type Gauge } from '../api/client';
import type { components } from '../api/schema';
import { ProblemNote } from '../app/ProblemNote';
import { DayField } from '../app/DayField';
import { TextField } from '../app/TextField';
import { useDrafts, useUnit } from '../app/unit';
import { useTyped } from '../app/useTyped';
import { useWorks, type Entered } from '../app/works';

type Given = Required<Omit<components['schemas']['KeepGaugeRequest'], keyof Entered | 'sends'>>;
type Sends = '' | Entered['mark'];

const KINDS = [
  'outside micrometer',
  'bore gauge',
  'caliper',
  'depth gauge',
  'dial indicator',
  'feeler set',
  'straightedge',
  'torque wrench',
  'thermometer',
];

/** What is in the unit the gauge reads in. */
const READ = ['low', 'high', 'resolution', 'repeatability', 'expanded', 'leaves'];

/** A gauge into the cabinet, or a new certificate to one that is there. */
export function GaugeForm({ gauge, onHide }: { gauge: Gauge | null; onHide: () => void }) {
  const { unit } = useUnit();
  const cache = useQueryClient();
  const begun = begin(gauge);
  const [kind, setKind] = useState(begun.kind);
  const [sends, setSends] = useState<Sends>((gauge?.mark ?? '') as Sends);
  const { signs } = useWorks();
  const dimension = kind === 'torque wrench' ? 'torque' : kind === 'thermometer' ? 'temperature' : 'length';
  const reads = signs[dimension]?.[unit] ?? '';
  const [texts, putText] = useDrafts(begun, (name) => (READ.includes(name) ? reads : ''));
  const given = { ...begun, ...texts, kind };
  const put = (name: keyof Given) => (text: string) => putText(name, text);
  const keep = useTyped(
    (body: Given & { sends: Sends } & Entered) =>
      gauge
        ? client.PUT('/api/gauges/{tag}', {
            params: { path: { tag: gauge.tag }, query: { unit: body.unit } },
            body,
          })
        : client.POST('/api/gauges', { params: { query: { unit: body.unit } }, body }),
    (lines, how) => {
      cache.setQueryData(['gauges', how.unit], lines);
      void cache.invalidateQueries({ queryKey: ['gauges'] });
      void cache.invalidateQueries({ queryKey: ['job'] });
      onHide();
    },
  );
  return (
    <Modal show onHide={onHide} centered size="lg" aria-labelledby="gauge-title">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate({ ...given, sends });
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title id="gauge-title">
            {gauge ? `${gauge.tag}: new certificate` : 'A gauge into the cabinet'}
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <div className="field-grid">
            {!gauge && (
              <TextField
                autoFocus
                label="Its name, as written on it"
                value={given.tag}
                maxLength={20}
                onChange={put('tag')}
              />
            )}
            <label className="field">
              Kind
              <select value={kind} disabled={gauge !== null} onChange={(e) => setKind(e.target.value)}>
                {KINDS.map((k) => (
                  <option key={k}>{k}</option>
                ))}
              </select>
            </label>
            <TextField label={`Range from (${reads})`} value={given.low} onChange={put('low')} />
            <TextField label={`Range to (${reads})`} value={given.high} onChange={put('high')} />
            <TextField
              label={`Smallest step (${reads})`}
              value={given.resolution}
              onChange={put('resolution')}
            />
            <TextField
              label={`Repeatability in trained hands (${reads}), if known`}
              value={given.repeatability}
              onChange={put('repeatability')}
            />
            <TextField
              label="Certificate number"
              value={given.certificate}
              maxLength={60}
              onChange={put('certificate')}
            />
            <TextField
              label={`U of the certificate (${reads})`}
              value={given.expanded}
              onChange={put('expanded')}
            />
            <label className="field">
              Decimal mark it sends by cable
              <select value={sends} onChange={(e) => setSends(e.target.value as Sends)}>
                <option value="">not stated: that of the works</option>
                <option value="point">point, 37.975</option>
                <option value="comma">comma, 37,975</option>
              </select>
            </label>
            <TextField label="k of the certificate" value={given.k} onChange={put('k')} />
            <DayField label="Calibrated on" value={given.calibrated} onChange={put('calibrated')} />
            <DayField label="Due again" value={given.due} onChange={put('due')} />
          </div>
          {kind === 'feeler set' && (
            <TextField
              label={`Its leaves, one by one, with spaces between (${unit})`}
              value={given.leaves}
              maxLength={600}
              onChange={put('leaves')}
            />
          )}
          <ProblemNote error={keep.error} onConfirm={keep.confirm} />
        </Modal.Body>
        <Modal.Footer>
          <Button type="submit" disabled={keep.isPending}>
            {gauge ? 'Save certificate' : 'Put it into the cabinet'}
          </Button>
        </Modal.Footer>
      </form>
    </Modal>
  );
}

function begin(gauge: Gauge | null): Given {
  const today = new Date().toISOString().slice(0, 10);
  if (!gauge) {
    return {
      tag: '',
      kind: 'outside micrometer',
      low: '',
      high: '',
      resolution: '',
      expanded: '',
      k: '2',
      certificate: '',
      repeatability: '',
      leaves: '',
      calibrated: today,
      due: '',
    };
  }
  const [low = '', high = ''] = gauge.range.split(' to ');
  const { tag, kind, resolution, expanded, k, certificate, repeatability } = gauge;
  return {
    tag,
    kind,
    low: low.trim(),
    high,
    resolution,
    expanded,
    k: String(k),
    certificate,
    repeatability,
    leaves: gauge.leaves.join(' '),
    calibrated: today,
    due: '',
  };
}
