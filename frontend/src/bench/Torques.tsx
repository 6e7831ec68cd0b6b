import type { Job } from '../api/client';

/** The torque table of the sheet, with its lubrication condition. */
export function Torques({ job }: { job: Job }) {
  if (!job.torques.length) return null;
  return (
    <table className="ruled">
      <caption>Torques on the sheet</caption>
      <thead>
        <tr>
          <th scope="col">Fastener</th>
          <th scope="col">Torque</th>
          <th scope="col">Thread</th>
          <th scope="col">Page</th>
        </tr>
      </thead>
      <tbody>
        {job.torques.map((t) => (
          <tr key={t.fastener}>
            <th scope="row">{t.fastener}</th>
            <td className="number">{t.torque}</td>
            <td>{t.condition}</td>
            <td>{t.page}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
