import { scaleLinear } from 'd3-scale';
import { useId } from 'react';
import type { Wear } from '../api/client';
import { DAY_MS, monthTicks } from './monthTicks';

const WIDTH = 760;
const HEIGHT = 360;
const LEFT = 70;
const BOTTOM = 58;
const TOP = 16;
const RIGHT = 18;
const EDGE = WIDTH - 45;

interface Axes {
  /** To the right: hours, or days of the calendar. */
  x: (at: number) => number;
  /** Size in mm upwards. */
  y: (mm: number) => number;
  ticks: { at: number; text: string; anchor?: 'middle' | 'end' }[];
  label: string;
}

/** The same lives by days of the calendar: each size on the day it is of, the forecast from the last of them at the hours a week. */
function byDays(wear: Wear): Wear {
  const dated = (points: Wear['points']) =>
    points.flatMap((p) => (p.day ? [{ ...p, hours: Date.parse(p.day) / DAY_MS }] : []));
  const points = dated(wear.points);
  const last = points.at(-1)?.hours;
  const { now_h, week_h } = wear;
  const on = (hours: number) => (last ?? 0) + ((hours - (now_h ?? 0)) / (week_h ?? 1)) * 7;
  const known = last !== undefined && now_h !== null && week_h !== null;
  const coming = known ? wear.band.filter((b) => b.hours >= now_h) : [];
  return {
    ...wear,
    points,
    lives: wear.lives.map(dated),
    band: coming.map((b) => ({ ...b, hours: on(b.hours) })),
    planned_h: known && wear.planned_h !== null ? on(wear.planned_h) : null,
  };
}

/** Sizes of one part against hours since it was fitted, or by the calendar: bars of uncertainty, band, limit, earlier lives faint. */
export function WearChart({
  wear: by,
  unit,
  calendar = false,
}: {
  wear: Wear;
  unit: string;
  calendar?: boolean;
}) {
  const wear = calendar ? byDays(by) : by;
  const everything = [...wear.points, ...wear.lives.flat()];
  if (!everything.length)
    return (
      <p className="quiet">
        {calendar && by.points.length
          ? 'No size of this part has a day.'
          : 'No size of this part is on record yet.'}
      </p>
    );
  const axes = axesOf(wear, calendar);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="wear-chart"
      role="img"
      aria-label={said(wear, unit, calendar)}
    >
      <Ticks wear={wear} axes={axes} />
      <Band wear={wear} axes={axes} />
      <Limit wear={wear} axes={axes} />
      <NextOverhaul wear={wear} axes={axes} />
      <Lives wear={wear} axes={axes} />
      <path d={`M${LEFT} ${TOP} V${HEIGHT - BOTTOM} H${WIDTH - RIGHT}`} className="frame-line" />
    </svg>
  );
}

interface Props {
  wear: Wear;
  axes: Axes;
}

function axesOf(wear: Wear, calendar: boolean): Axes {
  const everything = [...wear.points, ...wear.lives.flat()];
  const places = [...everything, ...wear.band].map((p) => p.hours);
  const first = calendar ? Math.min(...places) : 0;
  const last = Math.max(...places, first + 100);
  const limit = wear.limit_mm === null ? [] : [wear.limit_mm];
  const sizes = [...everything.map((p) => p.mm), ...wear.ticks.map((t) => t.mm), ...limit];
  const [low, high] = [Math.min(...sizes), Math.max(...sizes)];
  const range = [LEFT, WIDTH - RIGHT];
  const x = scaleLinear([first, last], range);
  const y = scaleLinear([low, high > low ? high : low + 1], [HEIGHT - BOTTOM, TOP]);
  if (!calendar) {
    const ticks = x.ticks(8).map((at) => ({ at, text: at.toLocaleString('en').replace(',', ' ') }));
    return { x, y, ticks, label: 'hours since fitted, at the present duty' };
  }
  const months = monthTicks(first, last);
  // A day at the edge ends there; a month there has no room for its name where there are others.
  const ticks = months.flatMap((one) => {
    if (x(one.at) < EDGE) return [one];
    return months.length > 2 ? [] : [{ ...one, anchor: 'end' as const }];
  });
  return { x, y, ticks, label: 'by the calendar' };
}

const line = ({ x, y }: Axes, points: { hours: number; mm: number }[]) =>
  points.map((p, i) => `${i ? 'L' : 'M'}${x(p.hours).toFixed(1)} ${y(p.mm).toFixed(1)}`).join(' ');

function Ticks({ wear, axes: { x, y, ticks, label } }: Props) {
  return (
    <>
      {wear.ticks.map((t) => (
        <g key={t.mm}>
          <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(t.mm)} y2={y(t.mm)} className="grid-line" />
          <text x={LEFT - 8} y={y(t.mm) + 5} textAnchor="end" className="note">
            {t.text}
          </text>
        </g>
      ))}
      {ticks.map(({ at, text, anchor }) => (
        <text key={at} x={x(at)} y={HEIGHT - 36} textAnchor={anchor ?? 'middle'} className="note">
          {text}
        </text>
      ))}
      <text x={WIDTH - RIGHT} y={HEIGHT - 10} textAnchor="end" className="note">
        {label}
      </text>
    </>
  );
}

/** The forecast and the band it is sure of, kept inside the frame. */
function Band({ wear, axes }: Props) {
  const inside = useId();
  const high = wear.band.map((b) => ({ hours: b.hours, mm: b.high_mm }));
  const low = wear.band.map((b) => ({ hours: b.hours, mm: b.low_mm })).reverse();
  if (!high.length) return null;
  return (
    <>
      <clipPath id={inside}>
        <rect x={LEFT} y={TOP} width={WIDTH - LEFT - RIGHT} height={HEIGHT - BOTTOM - TOP} />
      </clipPath>
      <g clipPath={`url(#${inside})`}>
        <path d={`${line(axes, [...high, ...low])} Z`} className="band" />
        <path d={line(axes, wear.band)} className="forecast-line" />
      </g>
    </>
  );
}

function Limit({ wear, axes: { y } }: Props) {
  if (wear.limit_mm === null) return null;
  const at = y(wear.limit_mm);
  return (
    <>
      <line x1={LEFT} x2={WIDTH - RIGHT} y1={at} y2={at} className="limit-line" />
      <text x={LEFT + 8} y={at - 6} className="limit-text">
        limit {wear.limit_text}
      </text>
    </>
  );
}

function NextOverhaul({ wear, axes: { x } }: Props) {
  if (wear.planned_h === null) return null;
  const at = x(wear.planned_h);
  return (
    <g>
      <line x1={at} x2={at} y1={TOP} y2={HEIGHT - BOTTOM} className="planned-line" />
      <text x={at - 6} y={TOP + 14} textAnchor="end" className="planned-text">
        next overhaul
      </text>
    </g>
  );
}

/** Earlier lives faint, then this one: each size with its doubt. */
function Lives({ wear, axes }: Props) {
  const { x, y } = axes;
  return (
    <>
      {wear.lives.map((life, i) => (
        <g key={i} className="past-life">
          <path d={line(axes, life)} className="life-line" />
          {life.map((p, j) => (
            <circle key={j} cx={x(p.hours)} cy={y(p.mm)} r="4" />
          ))}
        </g>
      ))}
      {wear.points.map((p, i) => (
        <g key={i}>
          <line
            x1={x(p.hours)}
            x2={x(p.hours)}
            y1={y(p.mm - p.expanded_mm)}
            y2={y(p.mm + p.expanded_mm)}
            className="doubt-bar"
          />
          <circle cx={x(p.hours)} cy={y(p.mm)} r="6" className={p.job ? 'size-dot' : 'size-dot hollow'} />
        </g>
      ))}
    </>
  );
}

function said(wear: Wear, unit: string, calendar: boolean): string {
  const at = (p: Wear['points'][number]) => (calendar ? `on ${p.day}` : `at ${Math.round(p.hours)} h`);
  const sizes = wear.points.map((p) => `${p.text} ${at(p)}`).join(', ');
  return `${wear.name}: ${sizes} (${unit}). ${wear.forecast?.sentence ?? ''}`;
}
