import { useNavigate } from 'react-router';
import type { Job } from '../../api/client';
import { PumpOrRoom } from '../../drawing/PumpDrawing';
import { useDrawing } from '../../drawing/useDrawing';
import { drawn } from '../job/stages';
import { Steps } from '../steps/Steps';
import { NowAsked } from '../tasks/AskedTask';

/** Taking it apart in the order that spares the parts. */
export function Strip({ job }: { job: Job }) {
  const navigate = useNavigate();
  const { drawing, lost } = useDrawing(job);
  return (
    <div className="stage steps-and-drawing">
      <div>
        <NowAsked job={job} stage="strip" />
        <Steps job={job} stage="strip" />
      </div>
      <section aria-label="The pump">
        <PumpOrRoom
          drawing={drawing}
          lost={lost}
          features={drawn(job)}
          selected=""
          onSelect={(key) => void navigate(`/bench/${job.number}/inspect?gap=${key}`)}
        />
        <p className="quiet">Press a number to measure it. Procedure: {job.procedure}.</p>
      </section>
    </div>
  );
}
