import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Link, NavLink, Outlet, useLocation } from 'react-router';
import { meQuery } from '../api/queries';
import { KeyProvider, useKeys } from './keys';
import { useScanner } from './scanner';
import { useUnit } from './unit';
import { WorksProvider } from './works';

const WORDS = { mm: 'millimetres', in: 'inches', thou: 'thousandths' } as const;

const PLACES = [
  ['/bench', 'Bench'],
  ['/fleet', 'Fleet'],
  ['/sheets', 'Sheets'],
  ['/toolbox', 'Toolbox'],
] as const;

interface Props {
  /** What is to be noted on every page. */
  notes: ReactNode;
  /** How another person goes on at this browser. */
  somebodyElse: ReactNode;
}

/** The strip on top, the place in the middle with what is to be noted on every page, the keys at the bottom. */
export function Shell({ notes, somebodyElse }: Props) {
  const { pathname } = useLocation();
  useScanner();
  // Another place, pump or job is read from its top; stages of a job stay where they are.
  const place = pathname.split('/').slice(0, 3).join('/');
  const main = useRef<HTMLElement>(null);
  useEffect(() => {
    if (main.current) main.current.scrollTop = 0;
  }, [place]);
  return (
    <KeyProvider>
      <a className="skip" href="#main">
        To the bench sheet
      </a>
      <Strip somebodyElse={somebodyElse} />
      <Warnings />
      {window.isSecureContext === false && (
        <p className="not-trusted">
          This page does not come over TLS: there is no camera and no clipboard here, and what is typed can be
          read on the network.
        </p>
      )}
      <main id="main" tabIndex={-1} ref={main}>
        <WorksProvider>
          {notes}
          <Outlet />
        </WorksProvider>
      </main>
    </KeyProvider>
  );
}

/** For a lead: what the server has to say of itself, on every page. */
function Warnings() {
  const me = useQuery(meQuery);
  if (!me.data?.warnings.length) return null;
  return (
    <p className="of-the-server" role="status">
      {me.data.warnings.join(' ')} <Link to="/toolbox/backups">Backups</Link>
    </p>
  );
}

function Strip({ somebodyElse }: Pick<Props, 'somebodyElse'>) {
  const me = useQuery(meQuery);
  const { unit, other, toggle } = useUnit();
  const [dim, setDim] = useState(() => localStorage.getItem('sheet') === 'dim');
  useEffect(() => {
    document.documentElement.dataset['bsTheme'] = dim ? 'dark' : 'light';
    localStorage.setItem('sheet', dim ? 'dim' : 'light');
  }, [dim]);
  useKeys([{ key: 'u', label: unit === 'mm' ? WORDS[other] : WORDS.mm, run: toggle }]);
  return (
    <header className="strip">
      <span className="wordmark">
        <Mark /> fine gap
      </span>
      <nav aria-label="Places">
        {PLACES.map(([to, name]) => (
          <NavLink key={to} to={to}>
            {name}
          </NavLink>
        ))}
      </nav>
      <span className="spacer" />
      <button type="button" className="strip-button" aria-pressed={dim} onClick={() => setDim(!dim)}>
        {dim ? 'Light sheet' : 'Dim sheet'}
      </button>
      <button
        type="button"
        className="unit-switch"
        onClick={toggle}
        aria-label={`Shown in ${WORDS[unit]}; switch`}
      >
        <span className={unit === 'mm' ? 'on' : ''}>mm</span>
        <span className={unit === other ? 'on' : ''}>{other}</span>
      </button>
      <span className="who">
        <NavLink to="/me" className="me-link">
          {me.data ? `${me.data.name}, ${me.data.role}` : ''}
        </NavLink>
        {somebodyElse}
      </span>
    </header>
  );
}

/** Two metal faces with a fine gap between them. */
function Mark() {
  return (
    <svg viewBox="0 0 48 26" width="40" height="22" aria-hidden="true">
      <g fill="none" stroke="currentColor" strokeWidth="2">
        <rect x="1" y="1" width="19" height="24" />
        <rect x="25" y="1" width="22" height="24" />
        <path d="M1 11 11 1M1 20 20 1M6 25 20 11M15 25l5-5M25 11 35 1M25 20 44 1M29 25 47 7M38 25l9-9" />
      </g>
    </svg>
  );
}
