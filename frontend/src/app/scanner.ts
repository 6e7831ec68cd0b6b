import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { codeIn } from '../fleet/label';

/** A hand scanner types a letter every few milliseconds; nobody types an address so fast. */
const NEXT_MS = 80;
const BEGINS = 'http';

/** Whether a field takes what is typed as it is; the pad takes numbers alone. */
const takesText = (target: EventTarget | null): boolean =>
  (target instanceof HTMLInputElement && !target.dataset.pad) || target instanceof HTMLTextAreaElement;

/**
 * A label read by a hand scanner on any page opens its pump: what the scanner types begins as an address does, and is kept from
 * keys and fields until its Enter. In a field for text it is left alone.
 */
export function useScanner(): void {
  const navigate = useNavigate();
  useEffect(() => {
    let text = '';
    let at = 0;
    function onKey(event: KeyboardEvent) {
      if (event.ctrlKey || event.altKey || event.metaKey || takesText(event.target)) return;
      const late = event.timeStamp - at > NEXT_MS;
      if (event.key === 'Enter') {
        const code = late ? '' : codeIn(text);
        text = '';
        if (!code) return;
        event.preventDefault();
        event.stopPropagation();
        void navigate(`/p/${code}`);
        return;
      }
      if (event.key.length !== 1) return;
      text = (late ? '' : text) + event.key;
      at = event.timeStamp;
      const length = Math.min(text.length, BEGINS.length);
      if (text.slice(0, length).toLowerCase() !== BEGINS.slice(0, length)) text = '';
      else if (text.length > 1) {
        event.preventDefault();
        event.stopPropagation();
      }
    }
    window.addEventListener('keydown', onKey, { capture: true });
    return () => window.removeEventListener('keydown', onKey, { capture: true });
  }, [navigate]);
}
