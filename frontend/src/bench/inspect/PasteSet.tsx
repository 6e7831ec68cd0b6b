import { useState } from 'react';
import { Button, Modal } from 'react-bootstrap';
import { newId, type Feature, type Job } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { useUnit } from '../../app/unit';
import { useChange } from '../job/useJob';

interface Props {
  job: Job;
  feature: Feature;
  phase: 'found' | 'left';
  gauge: string;
  onHide: () => void;
}

/** A whole set of readings from a spreadsheet: a row a station, repeats in columns; all of it is taken, or nothing. */
export function PasteSet({ job, feature, phase, gauge, onHide }: Props) {
  const { unit } = useUnit();
  const [text, setText] = useState('');
  const [id] = useState(newId);
  const record = useChange('readings/set', job.number);
  const save = () =>
    record.mutate({ id, feature: feature.key, phase, text, gauge, reason: '' }, { onSuccess: onHide });
  return (
    <Modal show onHide={onHide} centered aria-labelledby="paste-title">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title id="paste-title">Paste readings of {feature.name.toLowerCase()}</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <p>
            A row for each station, repeats in columns. The first column may name the stations; without names
            they are taken in this order: {feature.stations.map((s) => s.label).join('; ')}. A heading may
            carry the unit, else it is {unit}.
          </p>
          <label className="field">
            Cells
            <textarea
              autoFocus
              rows={8}
              value={text}
              maxLength={20000}
              onChange={(event) => setText(event.target.value)}
            />
          </label>
          <p className="quiet">Taken with {gauge}.</p>
          <ProblemNote error={record.error} onConfirm={record.confirm} />
        </Modal.Body>
        <Modal.Footer>
          <Button type="submit" disabled={record.isPending}>
            Save all of them
          </Button>
        </Modal.Footer>
      </form>
    </Modal>
  );
}
