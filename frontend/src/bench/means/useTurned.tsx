import { useState } from 'react';
import { useDraft } from '../../app/unit';
import { Arc } from './Arc';
import type { TryPart } from './kinds';

interface Told {
  /** Towards which side the move goes; empty where nothing is turned. */
  toward: string;
  /** By how much, along the marks. */
  arc: string;
}

/** How far a clamped gear was turned for a try, and towards which side; nothing is asked while it cannot have been. */
export function useTurned({ toward: told, arc: wanted }: Told, isAsked: boolean): TryPart {
  const [arc, setArc] = useDraft(told ? wanted : '0');
  const [toward, setToward] = useState(told || 'left');
  const moved = isAsked ? arc : '0';
  return {
    beside: isAsked && (
      <>
        <Arc label="Turned by, along the marks" value={arc} onChange={setArc} />
        <label className="field short">
          towards the
          <select value={toward} onChange={(e) => setToward(e.target.value)}>
            <option value="left">left</option>
            <option value="right">right</option>
          </select>
        </label>
      </>
    ),
    moved,
    way: toward,
    stacks_um: [],
    // Turned, it was released: what clamps it is to be done again.
    isChanged: /[1-9]/.test(moved),
  };
}
