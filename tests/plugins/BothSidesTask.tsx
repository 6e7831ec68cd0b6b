import type { TaskView } from '../../api/client';

export function BothSidesTask({ view }: { view: Extract<TaskView, { kind: 'both-sides' }> }) {
  return <p>{view.told}</p>;
}
