import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button, Modal } from 'react-bootstrap';
import { client, type Gauge } from '../api/client';
import type { components } from '../api/schema';
import { ProblemNote } from '../app/ProblemNote';
import { DayField } from '../app/DayField';
import { FormSelect, FormText } from '../app/form';
import { useDraftField, useDraftForm, type DraftForm } from '../app/useDraftForm';
import { useUnit } from '../app/unit';
import { useTyped } from '../app/useTyped';
import { useWorks, type Entered } from '../app/works';

type Given = Omit<components['schemas']['KeepGaugeRequest'], keyof Entered>;

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

const MARKS = [
  ['', 'not stated: that of the works'],
  ['point', 'point, 37.975'],
  ['comma', 'comma, 37,975'],
] as const;

function useKeep(gauge: Gauge | null, onKept: () => void) {
  const cache = useQueryClient();
  return useTyped(
    (body: Given & Entered) =>
      gauge
        ? client.PUT('/api/gauges/{tag}', {
            params: { path: { tag: gauge.tag }, query: { unit: body.unit } },
            body,
          })
        : client.POST('/api/gauges', { params: { query: { unit: body.unit } }, body }),
    () => {
      void cache.invalidateQueries({ queryKey: ['gauges'] });
      void cache.invalidateQueries({ queryKey: ['job'] });
      onKept();
    },
  );
}

/** A gauge into the cabinet, or a new certificate to one that is there. */
export function GaugeForm({ gauge, onHide }: { gauge: Gauge | null; onHide: () => void }) {
  const { unit } = useUnit();
  const { signs } = useWorks();
  const [kind, setKind] = useState(gauge?.kind ?? KINDS[0] ?? '');
  const dimension = kind === 'torque wrench' ? 'torque' : kind === 'thermometer' ? 'temperature' : 'length';
  const reads = signs[dimension]?.[unit] ?? '';
  const [begun] = useState(() => begin(gauge));
  const form = useDraftForm(begun, (name) => (READ.includes(name) ? reads : ''));
  const keep = useKeep(gauge, onHide);
  return (
    <Modal show onHide={onHide} centered size="lg" aria-labelledby="gauge-title">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate({ ...form.texts(), kind } as Given);
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
              <FormText autoFocus form={form} name="tag" label="Its name, as written on it" maxLength={20} />
            )}
            <label className="field">
              Kind
              <select value={kind} disabled={gauge !== null} onChange={(e) => setKind(e.target.value)}>
                {KINDS.map((k) => (
                  <option key={k}>{k}</option>
                ))}
              </select>
            </label>
            <CertificateFields form={form} reads={reads} />
          </div>
          {kind === 'feeler set' && (
            <FormText
              form={form}
              name="leaves"
              label={`Its leaves, one by one, with spaces between (${unit})`}
              maxLength={600}
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

/** What the certificate says, in the unit the gauge reads in. */
function CertificateFields({ form, reads }: { form: DraftForm; reads: string }) {
  return (
    <>
      <FormText form={form} name="low" label={`Range from (${reads})`} />
      <FormText form={form} name="high" label={`Range to (${reads})`} />
      <FormText form={form} name="resolution" label={`Smallest step (${reads})`} />
      <FormText
        form={form}
        name="repeatability"
        label={`Repeatability in trained hands (${reads}), if known`}
      />
      <FormText form={form} name="certificate" label="Certificate number" maxLength={60} />
      <FormText form={form} name="expanded" label={`U of the certificate (${reads})`} />
      <FormSelect form={form} name="sends" label="Decimal mark it sends by cable" options={MARKS} />
      <FormText form={form} name="k" label="k of the certificate" />
      <FormDay form={form} name="calibrated" label="Calibrated on" />
      <FormDay form={form} name="due" label="Due again" />
    </>
  );
}

function FormDay({ form, name, label }: { form: DraftForm; name: string; label: string }) {
  const [day, put] = useDraftField(form, name);
  return <DayField label={label} value={day} onChange={put} />;
}

/** Every field as it begins: of a gauge that is there, as its last certificate says. */
function begin(gauge: Gauge | null): Record<string, string> {
  const calibrated = new Date().toISOString().slice(0, 10);
  const nothing = { low: '', high: '', resolution: '', expanded: '', certificate: '', repeatability: '' };
  if (!gauge) return { ...nothing, tag: '', k: '2', leaves: '', calibrated, due: '', sends: '' };
  const [low = '', high = ''] = gauge.range.split(' to ');
  const { tag, resolution, expanded, k, certificate, repeatability, leaves, mark } = gauge;
  return {
    ...{ tag, resolution, expanded, certificate, repeatability, calibrated, high },
    ...{ low: low.trim(), k: String(k), leaves: leaves.join(' '), due: '', sends: mark },
  };
}
