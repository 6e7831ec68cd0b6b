import { NavLink } from 'react-router';

const PAGES = [
  ['/fleet', 'Pumps'],
  ['/fleet/due', 'What falls due'],
  ['/fleet/labels', 'Labels'],
  ['/fleet/scan', 'Scan a label'],
] as const;

/** The pages of the fleet. */
export function FleetNav() {
  return (
    <nav className="tabs" aria-label="Fleet">
      {PAGES.map(([to, name]) => (
        <NavLink key={to} to={to} end>
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
