import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from 'react';
import { Modal } from 'react-bootstrap';

/** A key that does something here and now. `show` overrides how it is written; without a label another key says it too. */
export interface KeyAction {
  key: string;
  label: string;
  run: () => void;
  show?: string;
}

type Register = (id: symbol, actions: KeyAction[] | null) => void;

const RegisterContext = createContext<Register>(() => undefined);

function isTyping(target: EventTarget | null): boolean {
  if (target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement) return true;
  return (
    target instanceof HTMLInputElement &&
    (target.type !== 'text' || target.value !== '' || !target.dataset.pad)
  );
}

/** Collects the keys of what is on screen, listens for them, and shows them in the strip at the bottom. */
export function KeyProvider({ children }: { children: ReactNode }) {
  const [sets, setSets] = useState<ReadonlyMap<symbol, KeyAction[]>>(new Map());
  const [helping, setHelping] = useState(false);
  const register = useCallback<Register>((id, actions) => {
    setSets((now) => {
      const next = new Map(now);
      if (actions) next.set(id, actions);
      else next.delete(id);
      return next;
    });
  }, []);
  const actions = useMemo(() => [...sets.values()].flat(), [sets]);

  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      if (event.ctrlKey || event.altKey || event.metaKey || event.defaultPrevented) return;
      if (document.querySelector('.modal.show')) return;
      const arrow = event.key.startsWith('Arrow');
      const inPad = event.target instanceof HTMLInputElement && event.target.dataset.pad;
      if (
        isTyping(event.target) &&
        !(arrow && inPad && event.key !== 'ArrowLeft' && event.key !== 'ArrowRight')
      )
        return;
      if (event.key === '?') {
        event.preventDefault();
        setHelping(true);
        return;
      }
      if (/^[\d.,-]$/.test(event.key) && !inPad) {
        // A digit typed anywhere is a reading: it lands in the pad.
        document.querySelector<HTMLInputElement>('input[data-pad]')?.focus();
        return;
      }
      const action = actions.find((a) => a.key.toLowerCase() === event.key.toLowerCase());
      if (!action) return;
      event.preventDefault();
      action.run();
    }
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [actions]);

  return (
    <RegisterContext.Provider value={register}>
      {children}
      <footer className="key-strip" aria-label="Keys">
        {actions
          .filter((a) => a.label)
          .map((a) => (
            <button type="button" key={a.key} onClick={a.run}>
              <kbd>{a.show ?? a.key.toUpperCase()}</kbd> {a.label}
            </button>
          ))}
        <button type="button" onClick={() => setHelping(true)}>
          <kbd>?</kbd> all keys
        </button>
      </footer>
      <Modal show={helping} onHide={() => setHelping(false)} aria-labelledby="keys-title" centered>
        <Modal.Header closeButton>
          <Modal.Title id="keys-title">Keys here</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <dl className="key-list">
            <dt>
              <kbd>0–9</kbd> <kbd>Enter</kbd>
            </dt>
            <dd>type a number and save it</dd>
            {actions
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
          <p>
            Letters work while the number is empty; a number may carry its unit: 1.4995 in, 5 thou, 130 um.
          </p>
        </Modal.Body>
      </Modal>
    </RegisterContext.Provider>
  );
}

/** Offer keys while this component is on screen. */
// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export function useKeys(actions: KeyAction[]): void {
  const register = useContext(RegisterContext);
  const latest = useRef(actions);
  useEffect(() => {
    latest.current = actions;
  });
  const shape = actions.map((a) => `${a.key}\u0000${a.show ?? ''}\u0000${a.label}`).join('\u0001');
  useEffect(() => {
    const id = Symbol('keys');
    const stable = shape
      .split('\u0001')
      .filter(Boolean)
      .map((line, index) => {
        const [key = '', show, label = ''] = line.split('\u0000');
        return { key, label, run: () => latest.current[index]?.run(), ...(show ? { show } : {}) };
      });
    register(id, stable);
    return () => register(id, null);
  }, [register, shape]);
}
