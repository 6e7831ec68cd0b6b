import { useMutationState } from '@tanstack/react-query';
import { useLeftWaiting, useLongWaiting } from './useLeftWaiting';

/** What waits to be saved is said on every page. */
export function Waits() {
  useLeftWaiting();
  const count = useLongWaiting();
  const unsent = useUnsent();
  if (count)
    return (
      <p className="passed-over waits-to-be-saved" role="status">
        <b>
          {count} {count === 1 ? 'change waits' : 'changes wait'} to be saved.
        </b>{' '}
        The server does not answer, or can save nothing now. {count === 1 ? 'It is' : 'They are'} kept on this
        device and tried again, in order.
      </p>
    );
  if (!unsent) return null;
  return (
    <p className="passed-over waits-to-be-saved" role="status">
      <b>{unsent === 1 ? 'One thing is' : `${unsent} things are`} not saved yet.</b> The server does not
      answer.
      {unsent === 1 ? ' It is' : ' They are'} sent again until it does: leave this page open.
    </p>
  );
}

/** How many changes outside a job were sent, and not answered: nothing keeps them but this page. */
const useUnsent = () =>
  useMutationState({
    filters: { status: 'pending', predicate: (one) => one.state.failureCount > 0 },
    select: (one) => one.mutationId,
  }).length;
