import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  type ReactNode,
  type RefObject,
} from 'react';
import { Modal } from 'react-bootstrap';

/** A key that does something here and now. `show` overrides how it is written; without a label another key says it too. */
export interface KeyAction {
  key: string;
  label: string;
  run: () => void;
  show?: string;
}

type Latest = RefObject<KeyAction[]>;
type Register = (id: symbol, actions: Latest | null) => void;

const RegisterContext = createContext<Register>(() => undefined);

function isTyping(target: EventTarget | null): boolean {
  if (target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement) return true;
  // A cell of a table begins to be typed in with the key itself.
  if (target instanceof Element && target.closest('[role="gridcell"]')) return true;
  return (
    target instanceof HTMLInputElement &&
    target.type !== 'checkbox' &&
    (target.type !== 'text' || target.value !== '' || !target.dataset.pad)
  );
}

/** Whether a key that is held down presses itself again. What is typed may go on so; Enter and a key that does something may not. */
function isHeld(event: KeyboardEvent): boolean {
  if (!event.repeat || event.target instanceof HTMLTextAreaElement) return false;
  return event.key === 'Enter' || (event.key.length === 1 && event.key !== ' ' && !isTyping(event.target));
}

/** Collects the keys of what is on screen, listens for them, and shows them in the strip at the bottom. */
export function KeyProvider({ children }: { children: ReactNode }) {
  // What a key does is read from here, so that it works from the moment the screen shows it; the strip only tells.
  const registry = useRef(new Map<symbol, Latest>());
  const [shown, setShown] = useState<Omit<KeyAction, 'run'>[]>([]);
  const [helping, setHelping] = useState(false);
  const register = useCallback<Register>((id, latest) => {
    if (latest) registry.current.set(id, latest);
    else registry.current.delete(id);
    setShown([...registry.current.values()].flatMap((l) => l.current));
  }, []);
  const press = useCallback((key: string) => {
    const all = [...registry.current.values()].flatMap((l) => l.current);
    const action = all.find((a) => a.key.toLowerCase() === key.toLowerCase());
    action?.run();
    return action !== undefined;
  }, []);

  const help = useCallback(() => setHelping(true), []);
  useKeyboard(press, help);
  return (
    <RegisterContext.Provider value={register}>
      {children}
      <footer className="key-strip" aria-label="Keys">
        {shown
          .filter((a) => a.label)
          .map((a) => (
            <button type="button" key={a.key} onClick={() => press(a.key)}>
              <kbd>{a.show ?? a.key.toUpperCase()}</kbd> {a.label}
            </button>
          ))}
        <button type="button" onClick={help}>
          <kbd>?</kbd> all keys
        </button>
      </footer>
      <KeyHelp show={helping} keys={shown} onHide={() => setHelping(false)} />
    </RegisterContext.Provider>
  );
}

/** Whether a key is for a field that is typed in, or for a dialog over the page. In the pad, arrows up and down are not. */
function isForField(event: KeyboardEvent, inPad: boolean): boolean {
  if (event.ctrlKey || event.altKey || event.metaKey || event.defaultPrevented) return true;
  if (document.querySelector('.modal.show')) return true;
  return isTyping(event.target) && !(inPad && (event.key === 'ArrowUp' || event.key === 'ArrowDown'));
}

/** Listens for the keys of the screen; `press` tells whether one of them was meant. */
function useKeyboard(press: (key: string) => boolean, help: () => void): void {
  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      const inPad = event.target instanceof HTMLInputElement && Boolean(event.target.dataset.pad);
      if (isForField(event, inPad)) return;
      if (event.key === '?') {
        event.preventDefault();
        help();
      } else if (/^[\d.,-]$/.test(event.key) && !inPad) {
        // A digit typed anywhere is a reading: it lands in the pad.
        document.querySelector<HTMLInputElement>('input[data-pad]')?.focus();
      } else if (press(event.key)) event.preventDefault();
    }
    function onHeld(event: KeyboardEvent) {
      if (isHeld(event)) event.preventDefault();
    }
    // Before a form or a button hears of it: each press does one thing.
    window.addEventListener('keydown', onHeld, { capture: true });
    window.addEventListener('keydown', onKey);
    return () => {
      window.removeEventListener('keydown', onHeld, { capture: true });
      window.removeEventListener('keydown', onKey);
    };
  }, [press, help]);
}

interface HelpProps {
  show: boolean;
  keys: Omit<KeyAction, 'run'>[];
  onHide: () => void;
}

/** All keys that do something here. */
function KeyHelp({ show, keys, onHide }: HelpProps) {
  return (
    <Modal show={show} onHide={onHide} aria-labelledby="keys-title" centered>
      <Modal.Header closeButton>
        <Modal.Title id="keys-title">Keys here</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <dl className="key-list">
          <dt>
            <kbd>0–9</kbd> <kbd>Enter</kbd>
          </dt>
          <dd>type a number and save it</dd>
          {keys
            .filter((a) => a.label)
            .map((a) => (
              <div key={a.key} className="key-row">
                <dt>
                  <kbd>{a.show ?? a.key.toUpperCase()}</kbd>
                </dt>
                <dd>{a.label}</dd>
              </div>
            ))}
        </dl>
        <p>Letters work while the number is empty; a number may carry its unit: 1.6 in, 5 thou, 130 um.</p>
      </Modal.Body>
    </Modal>
  );
}

/** Offer keys while this component is on screen. */
// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export function useKeys(actions: KeyAction[]): void {
  const register = useContext(RegisterContext);
  const latest = useRef(actions);
  useLayoutEffect(() => {
    latest.current = actions;
  });
  const shape = actions.map((a) => `${a.key}\u0000${a.show ?? ''}\u0000${a.label}`).join('\u0001');
  useLayoutEffect(() => {
    const id = Symbol('keys');
    register(id, latest);
    return () => register(id, null);
  }, [register, shape]);
}
