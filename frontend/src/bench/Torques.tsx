import type { Job } from '../api/client';
import { Table } from '../app/Table';

/** The torque table of the sheet, with its lubrication condition. */
export function Torques({ job }: { job: Job }) {
  if (!job.torques.length) return null;
  const rows = job.torques.map((t) => [t.fastener, t.torque, t.condition, t.page]);
  return <Table caption="Torques on the sheet" head={['Fastener', 'Torque', 'Thread', 'Page']} rows={rows} />;
}
