import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { TextField } from '../app/TextField';
import { codeIn } from './label';
import { FleetNav } from './FleetNav';

interface Detector {
  detect: (source: HTMLVideoElement) => Promise<{ rawValue: string }[]>;
}
type DetectorClass = new (options: { formats: string[] }) => Detector;

const EVERY_MS = 250;

/** Whether this browser reads codes by itself; not every one does. */
const detectorClass = () => (globalThis as { BarcodeDetector?: DetectorClass }).BarcodeDetector;

/** A label, by the tablet's camera where the browser can, by a scanner that types, or by the six letters on it. */
export function Scan() {
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  const [said, setSaid] = useState('');
  const open = (text: string) => {
    const code = codeIn(text) || codeIn(`label ${text}`);
    if (code) void navigate(`/p/${code}`);
    else setSaid('That is no label of this works: six letters and digits, or the code beside them.');
  };
  return (
    <div className="page">
      <FleetNav />
      <h1>Scan a label</h1>
      <div className="two-columns">
        <form
          onSubmit={(event) => {
            event.preventDefault();
            open(typed);
          }}
        >
          <TextField
            autoFocus
            label="Label: scanned by a hand scanner, or its six letters typed"
            value={typed}
            maxLength={200}
            onChange={(text) => {
              setTyped(text);
              setSaid('');
            }}
          />
          {said && (
            <p className="problem" role="alert">
              {said}
            </p>
          )}
          <button type="submit" className="btn btn-primary">
            Open
          </button>
          <p className="quiet">A hand scanner works on every page: hold it to a label, and its pump opens.</p>
        </form>
        <Camera onCode={open} />
      </div>
    </div>
  );
}

function Camera({ onCode }: { onCode: (text: string) => void }) {
  const [on, setOn] = useState(false);
  const [wrong, setWrong] = useState('');
  const why = cannot();
  return (
    <section aria-label="Camera">
      {why ? (
        <p className="quiet">{why}</p>
      ) : on ? (
        <Looking
          onCode={onCode}
          onFault={(words) => {
            setWrong(words);
            setOn(false);
          }}
        />
      ) : (
        <button type="button" className="btn btn-outline-primary" onClick={() => setOn(true)}>
          By the camera
        </button>
      )}
      {wrong && (
        <p className="problem" role="alert">
          {wrong}
        </p>
      )}
    </section>
  );
}

/** Why the camera cannot be used here; nothing where it can. */
function cannot(): string {
  if (!window.isSecureContext) return 'The camera needs a page that comes over TLS.';
  if (!('mediaDevices' in navigator)) return 'This device has no camera a page may use.';
  return detectorClass() ? '' : 'This browser does not read codes by the camera. Type the six letters.';
}

/** The camera's picture, looked at again and again until there is a code in it. */
function Looking({ onCode, onFault }: { onCode: (text: string) => void; onFault: (words: string) => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const told = useRef({ onCode, onFault });
  useEffect(() => {
    told.current = { onCode, onFault };
  });
  useEffect(() => {
    let timer = 0;
    let stream: MediaStream | undefined;
    let ended = false;
    const stop = () => {
      ended = true;
      window.clearTimeout(timer);
      stream?.getTracks().forEach((track) => track.stop());
    };
    const look = async (detector: Detector) => {
      if (ended || !video.current) return;
      const found = await detector.detect(video.current).catch(() => []);
      const text = found.map((one) => one.rawValue).find(codeIn);
      if (text) {
        stop();
        told.current.onCode(text);
      } else timer = window.setTimeout(() => void look(detector), EVERY_MS);
    };
    const begin = async () => {
      const Class = detectorClass();
      if (!Class) return;
      try {
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } });
        if (ended || !video.current) return stop();
        video.current.srcObject = stream;
        await video.current.play();
        await look(new Class({ formats: ['qr_code'] }));
      } catch {
        if (!ended) told.current.onFault('The camera was not allowed, or is in use. Type the six letters.');
      }
    };
    void begin();
    return stop;
  }, []);
  return <video ref={video} className="camera" muted playsInline aria-label="What the camera sees" />;
}
