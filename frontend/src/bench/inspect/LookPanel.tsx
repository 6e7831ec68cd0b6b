import { useState } from 'react';
import { Button, Modal } from 'react-bootstrap';
import { newId, type Feature, type Job } from '../../api/client';
import { useKeys } from '../../app/keys';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { verdictClass } from '../../drawing/VerdictMark';
import { useChange } from '../job/useJob';

interface Props {
  job: Job;
  feature: Feature;
  phase: 'found' | 'left';
  onHide: () => void;
  onSaved?: () => void;
}

/** What is seen on a part: sound, or damage with what it means by the family's rules. */
export function LookPanel({ job, feature, phase, onHide, onSaved }: Props) {
  return (
    <Modal show onHide={onHide} centered aria-labelledby="look-title">
      <Modal.Header closeButton>
        <Modal.Title id="look-title">{feature.name}: what do you see?</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <LookForm
          job={job}
          feature={feature}
          phase={phase}
          onSaved={() => {
            onHide();
            onSaved?.();
          }}
        />
      </Modal.Body>
    </Modal>
  );
}

export function LookForm({ job, feature, phase, onSaved }: Omit<Props, 'onHide'>) {
  const before = phase === 'left' ? feature.look_left : feature.look;
  const [seen, setSeen] = useState<string[]>(before?.damages ?? []);
  const [note, setNote] = useState(before?.note ?? '');
  const look = useChange('looks', job.number);
  const save = (damages: string[]) =>
    look.mutate(
      { id: newId(), feature: feature.key, phase, damages, note },
      onSaved ? { onSuccess: onSaved } : {},
    );
  const toggle = (key: string) =>
    setSeen((now) => (now.includes(key) ? now.filter((k) => k !== key) : [...now, key]));
  const off = job.signed !== null || look.isPending;
  useKeys(off ? [] : [{ key: 's', label: 'sound', run: () => save([]) }]);
  return (
    <form
      className="look"
      onSubmit={(event) => {
        event.preventDefault();
        save(seen);
      }}
    >
      <Button variant="outline-primary" className="sound" disabled={off} onClick={() => save([])}>
        Sound: nothing to see or to feel
      </Button>
      <ul>
        {feature.damages.map((d) => (
          <li key={d.key}>
            <label>
              <input
                type="checkbox"
                checked={seen.includes(d.key)}
                disabled={off}
                onChange={() => toggle(d.key)}
              />
              <span>
                <b>{d.name}</b> <span className={verdictClass(d.verdict)}>{d.verdict}</span>
                <small>{d.meaning}</small>
              </span>
            </label>
          </li>
        ))}
      </ul>
      <TextField label="In your words, if it helps" value={note} maxLength={300} onChange={setNote} />
      <ProblemNote error={look.error} />
      <Button type="submit" disabled={off || seen.length === 0}>
        Save what you saw
      </Button>
    </form>
  );
}
