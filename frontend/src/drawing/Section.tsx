import { useId } from 'react';
import type { Drawing, Feature } from '../api/client';
import { Hatch } from './GapBar';

interface Props {
  drawing: Drawing;
  features: Feature[];
  selected: string;
  onSelect: (key: string) => void;
}

/** The pump cut along its shaft, gaps drawn wide, each measured thing with its number, its state by shape and its value. */
export function Section({ drawing, features, selected, onSelect }: Props) {
  const near = useId();
  const far = useId();
  const fills: Record<string, string> = { hatched: `url(#${near})`, 'hatched-other': `url(#${far})` };
  const chosen = features.filter((f) => f.key === selected);
  // Drawn last, the one in hand lies on top of every leader.
  const inOrder = [...features.filter((f) => f.key !== selected), ...chosen];
  return (
    <svg
      viewBox={`0 0 ${drawing.width} ${drawing.height}`}
      className="section"
      role="group"
      aria-label="Section of the pump with its numbered gaps"
    >
      <g aria-hidden="true">
        <Hatch id={near} />
        <Hatch id={far} turn={-45} />
        {drawing.marks.map((mark, i) => (
          <path
            key={i}
            d={mark.path}
            className={fills[mark.style] ? 'metal' : mark.style}
            fill={fills[mark.style]}
          />
        ))}
      </g>
      <g aria-hidden="true">
        {inOrder.map((feature) => (
          <Leader key={feature.key} feature={feature} selected={feature.key === selected} />
        ))}
      </g>
      {inOrder.map((feature) => (
        <Balloon
          key={feature.key}
          feature={feature}
          selected={feature.key === selected}
          onSelect={onSelect}
        />
      ))}
    </svg>
  );
}

/** What is known of a feature in a word or two: its size, else what was seen, else that it is open. */
// eslint-disable-next-line react-refresh/only-export-components -- one wording for drawing and list
export function stateOf(feature: Feature): { value: string; verdict: string | null } {
  const verdict = (feature.judged_left ?? feature.judged)?.verdict ?? null;
  const size = (feature.left ?? feature.found)?.text;
  const seen = (feature.look_left ?? feature.look)?.words;
  // A verdict that is not Keep says more than what was seen.
  const words = verdict && verdict !== 'Keep' ? '' : seen;
  return { value: size ?? words ?? openWords(feature), verdict };
}

function openWords(feature: Feature): string {
  const open = feature.kind === 'check' ? 'to look at' : feature.wanted ? 'to measure' : 'no size given';
  const first = feature.suspect > 0 && feature.wanted && feature.stations.length > 0;
  return first ? `${open}, first` : open;
}

/** A verdict that is written beside the size; Keep is not. */
const toldOf = (verdict: string | null): string => (verdict && verdict !== 'Keep' ? verdict : '');

/** Words too long to stand beside a size. */
const SHORT: Record<string, string> = { 'Measure again': 'again' };

/** Width of a letter beside a number, about, in drawing units. */
const LETTER = 8.6;
/** A leader that has risen or fallen further than this where its words end has left them by then. */
const CLEAR = 60;

/** Where a leader begins: at the number, or behind the words beside it where it would run all through them. */
function leaderStart(feature: Feature): number {
  const [ax = 0, ay = 0] = feature.anchor;
  const [lx = 0, ly = 0] = feature.label;
  const { value, verdict } = stateOf(feature);
  const told = toldOf(verdict);
  const said = told ? `${value} · ${SHORT[told] ?? told}` : value;
  const end = lx + 33 + LETTER * Math.max(feature.name.length, said.length);
  const drop = (Math.abs(ay - ly) / (ax - lx)) * (end - lx);
  return ax > end && drop < CLEAR ? end : lx;
}

/** From the number to the spot it means. */
function Leader({ feature, selected }: { feature: Feature; selected: boolean }) {
  const [ax = 0, ay = 0] = feature.anchor;
  const [, ly = 0] = feature.label;
  const verdict = stateOf(feature).verdict ?? 'open';
  return (
    <g className={`state-${slug(verdict)}${selected ? ' selected' : ''}`}>
      <line x1={ax} y1={ay} x2={leaderStart(feature)} y2={ly} className="leader" />
      <circle cx={ax} cy={ay} r="4" className="leader-end" />
    </g>
  );
}

const slug = (verdict: string): string => verdict.toLowerCase().replace(' ', '-');

interface BalloonProps {
  feature: Feature;
  selected: boolean;
  onSelect: (key: string) => void;
}

function Balloon({ feature, selected, onSelect }: BalloonProps) {
  const [lx = 0, ly = 0] = feature.label;
  const { value, verdict } = stateOf(feature);
  const state = verdict ?? (feature.done ? 'measured' : 'open');
  const choose = () => onSelect(feature.key);
  const said = [`${feature.number} ${feature.name}: ${value}`, verdict, feature.suspect ? 'suspect' : ''];
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={selected}
      aria-label={said.filter(Boolean).join(', ')}
      className={`balloon state-${slug(state)}${selected ? ' selected' : ''}`}
      onClick={choose}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault();
          choose();
        }
      }}
    >
      <rect x={lx - 24} y={ly - 25} width="204" height="50" className="touch" />
      <Ring x={lx} y={ly} verdict={state} selected={selected} />
      <text x={lx} y={ly + 6} textAnchor="middle" className="balloon-number">
        {feature.number}
      </text>
      <text x={lx + 27} y={ly - 4} className="balloon-name">
        {feature.name}
      </text>
      <BalloonValue feature={feature} x={lx + 27} y={ly} />
    </g>
  );
}

/** The size, and the verdict where it is not Keep: beside the size, and in one word where the drawing is narrow. */
function BalloonValue({ feature, x, y }: { feature: Feature; x: number; y: number }) {
  const { value, verdict } = stateOf(feature);
  const told = toldOf(verdict);
  const short = SHORT[told] ?? told;
  return (
    <>
      {told && value && (
        <text x={x} y={y - 5} className="balloon-word">
          {short}
        </text>
      )}
      <text x={x} y={y + 15} className={`balloon-value${feature.done || verdict ? '' : ' balloon-open'}`}>
        {value}
        {told && <tspan className={value ? 'balloon-verdict' : ''}>{value ? ` · ${short}` : told}</tspan>}
      </text>
    </>
  );
}

/** The verdict's shape round the number. */
function Ring({ x, y, verdict, selected }: { x: number; y: number; verdict: string; selected: boolean }) {
  const circle = { cx: x, cy: y, r: 19 };
  if (selected) return <circle {...circle} className="ring filled" />;
  const dashes: Record<string, string> = { open: '1 5', Watch: '89.5 29.8', 'Measure again': '6 6' };
  return (
    <>
      <circle
        {...circle}
        className="ring"
        strokeDasharray={dashes[verdict] ?? 'none'}
        transform={`rotate(-90 ${x} ${y})`}
      />
      {verdict === 'Change' && <path d={`M${x} ${y - 27} v12 M${x} ${y + 15} v12`} className="bar" />}
    </>
  );
}
