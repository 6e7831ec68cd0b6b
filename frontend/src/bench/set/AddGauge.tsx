import { Link } from 'react-router';

/** Where none of the cabinet is made for what is measured. */
export function AddGauge() {
  return (
    <Link className="add-gauge" to="/toolbox?add">
      None of the cabinet is made for this: add a gauge
    </Link>
  );
}
