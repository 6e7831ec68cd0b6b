import { useId } from 'react';
import type { Picture } from '../../api/client';
import { Hatch } from '../../drawing/GapBar';
import { VerdictMark } from '../../drawing/VerdictMark';

/** Which way round: right beside wrong, each with what to look for. */
export function PictureTask({ view: picture }: { view: Picture }) {
  return (
    <section className="pictures" aria-label={`${picture.name}, which way round`}>
      <Side picture={picture} side="right" />
      <Side picture={picture} side="wrong" />
    </section>
  );
}

interface SmallProps {
  picture: Picture;
  /** For a part that points towards the rotor: the picture is drawn pointing towards the drive. */
  mirrored: boolean;
}

/** The same beside a part, without the words that would be too small to read. */
export function SmallPicture({ picture, mirrored }: SmallProps) {
  return (
    <div className="pictures small">
      <Side picture={picture} side="right" small mirrored={mirrored} />
      <Side picture={picture} side="wrong" small mirrored={mirrored} />
    </div>
  );
}

interface SideProps {
  picture: Picture;
  side: 'right' | 'wrong';
  small?: boolean;
  mirrored?: boolean;
}

function Side({ picture, side, small, mirrored }: SideProps) {
  const near = useId();
  const far = useId();
  const fills: Record<string, string> = { hatched: `url(#${near})`, 'hatched-other': `url(#${far})` };
  const words = side === 'right' ? picture.right_words : picture.wrong_words;
  const name = side === 'right' ? 'Right' : 'Wrong';
  return (
    <figure>
      <svg viewBox="0 0 300 220" role="img" aria-label={`${name}: ${words}`}>
        <Hatch id={near} />
        <Hatch id={far} turn={-45} />
        <g transform={mirrored ? 'translate(300 0) scale(-1 1)' : undefined}>
          {picture[side].map((m, i) => (
            <path key={i} d={m.path} className={fills[m.style] ? 'metal' : m.style} fill={fills[m.style]} />
          ))}
        </g>
        {!small &&
          picture.labels.map((l) => (
            <text key={`${l.x} ${l.text}`} x={l.x} y={l.y} textAnchor="middle" className="note">
              {l.text}
            </text>
          ))}
      </svg>
      <figcaption>
        <VerdictMark verdict={side === 'right' ? 'Keep' : 'Change'} size={small ? 20 : 26} />
        <span>
          <b>{name}</b>
          {small ? '' : `. ${words}`}
        </span>
      </figcaption>
    </figure>
  );
}
