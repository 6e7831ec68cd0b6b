import { useLeftWaiting, useLongWaiting } from './useLeftWaiting';

/** What waits to be saved is said on every page. */
export function Waits() {
  useLeftWaiting();
  const count = useLongWaiting();
  if (!count) return null;
  return (
    <p className="passed-over waits-to-be-saved" role="status">
      <b>
        {count} {count === 1 ? 'change waits' : 'changes wait'} to be saved.
      </b>{' '}
      The server does not answer, or can save nothing now. {count === 1 ? 'It is' : 'They are'} kept on this
      device and tried again, in order.
    </p>
  );
}
