import { useState } from 'react';
import { Modal } from 'react-bootstrap';
import type { Feature, Job, Reading } from '../../api/client';
import { moment } from '../../app/time';
import { Reason } from '../job/StrikeOut';

interface Props {
  readings: Reading[];
  stations: Feature['stations'];
  onStrike: ((id: string) => void) | null;
}

/** Every reading as typed, with gauge, who and when; struck ones stay, struck through, with the reason. */
export function ReadingList({ readings, stations, onStrike }: Props) {
  const [open, setOpen] = useState(false);
  if (!readings.length) return null;
  const name = (key: string) => stations.find((s) => s.key === key)?.label ?? key;
  return (
    <div className={`reading-list${open ? ' unfolded' : ''}`}>
      <button type="button" className="fold" aria-expanded={open} onClick={() => setOpen(!open)}>
        {readings.length} {readings.length === 1 ? 'reading' : 'readings'} {open ? '▴' : '▾'}
      </button>
      {open && (
        <table className="ruled">
          <tbody>
            {readings.map((r, i) => (
              <Row key={r.id ?? i} reading={r} station={name(r.station)} onStrike={onStrike} />
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

interface RowProps {
  reading: Reading;
  station: string;
  onStrike: ((id: string) => void) | null;
}

function Row({ reading: r, station, onStrike }: RowProps) {
  return (
    <tr className={r.struck_reason ? 'struck' : ''}>
      <td>{station}</td>
      <td className="number">{r.typed}</td>
      <td className="number">{r.text}</td>
      <td>
        <HowTaken reading={r} />
      </td>
      <td>
        {r.by}, {moment(r.at)}
        {r.struck_reason && <em> {r.struck_reason}</em>}
      </td>
      <td>
        {!r.struck_reason && r.id !== null && onStrike && (
          <button type="button" className="take-back" onClick={() => onStrike(r.id ?? '')}>
            strike out
          </button>
        )}
      </td>
    </tr>
  );
}

/** How a reading that was not typed at the pump came here. */
const CAME: Record<string, string> = { receiver: ', pulled', paper: ', from paper', pasted: ', pasted' };

/** With which gauge, how it came here, and what is odd about it. */
function HowTaken({ reading: r }: { reading: Reading }) {
  return (
    <>
      {r.gauge}
      {r.part ? `, part at ${r.part}` : ''}
      {CAME[r.taken] ?? ''}
      {r.understood && `, read as ${r.understood}`}
      {r.reason && `, meant: ${r.reason}`}
      {r.faults.length > 0 && <span className="warning"> {r.faults.join(' ')}</span>}
    </>
  );
}

/** Striking out asks for the reason; the reading stays on the sheet. */
export function Strike({ job, reading, onHide }: { job: Job; reading: string; onHide: () => void }) {
  const typed = job.features.flatMap((f) => f.readings).find((r) => r.id === reading)?.typed;
  return (
    <Modal show onHide={onHide} centered aria-labelledby="strike-title">
      <Modal.Header closeButton>
        <Modal.Title id="strike-title">Strike out {typed}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Reason job={job} kind="reading" record={reading} warns="" onDone={onHide} />
      </Modal.Body>
    </Modal>
  );
}
