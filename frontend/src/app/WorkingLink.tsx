import { useState } from 'react';
import { Modal } from 'react-bootstrap';
import { useQuery } from '@tanstack/react-query';
import type { Working, WorkingPlace } from '../api/client';
import { workingQuery } from '../api/queries';
import { Loaded } from './Loading';
import { useUnit } from './unit';

/** Opens the margin of the bench sheet for a number: formula, numbers put in, result, source. */
export function WorkingLink({ working, children }: { working: Working | WorkingPlace; children?: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="working-link"
        onClick={() => setOpen(true)}
        aria-label={`working: ${working.title}`}
      >
        {children ?? 'working'}
      </button>
      <WorkingDialog working={working} show={open} onHide={() => setOpen(false)} />
    </>
  );
}

export function WorkingDialog({
  working,
  show,
  onHide,
}: {
  working: Working | WorkingPlace;
  show: boolean;
  onHide: () => void;
}) {
  return (
    <Modal show={show} onHide={onHide} centered aria-labelledby="working-title">
      <Modal.Header closeButton>
        <Modal.Title id="working-title">{working.title}</Modal.Title>
      </Modal.Header>
      <Modal.Body className="working">
        {'at' in working ? <Asked at={working.at} /> : <Shown working={working} />}
      </Modal.Body>
    </Modal>
  );
}

function Asked({ at }: { at: string }) {
  const { unit } = useUnit();
  return (
    <Loaded query={useQuery(workingQuery(at, unit))} what="the working">
      {(working) => <Shown working={working} />}
    </Loaded>
  );
}

function Shown({ working }: { working: Working }) {
  return (
    <>
      <p className="formula">{working.formula}</p>
      <table>
        <caption className="visually-hidden">Numbers put in</caption>
        <tbody>
          {working.given.map((g, i) => (
            <tr key={i}>
              <th scope="row">{g.symbol}</th>
              <td>{g.meaning}</td>
              <td className="number">{g.text}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="result">= {working.result}</p>
      {working.notes.map((note) => (
        <p key={note}>{note}</p>
      ))}
      <p className="source">Source: {working.source}</p>
    </>
  );
}
