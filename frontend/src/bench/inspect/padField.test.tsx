import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { showOnBench, stubServer } from '../../test-bench';
import { aFeature, aGauge, aJob } from '../../test-builders';
import { Pad } from './Pad';

stubServer(() => Response.json({}));

test('a digit typed renders its field alone', async () => {
  let rendered = 0;
  const feature = {
    ...aFeature({ stations: [{ key: '12', plane: '', direction: '12', label: '12' }] }),
    get number() {
      rendered += 1; // in the ring at the head of the pad
      return 11;
    },
    get made() {
      rendered += 1; // in the note on the gauge, below the field
      return [];
    },
  };
  showOnBench(<Pad job={aJob({ gauges: [aGauge('M-4', 'caliper')] })} feature={feature} phase="found" />);
  const before = rendered;
  expect(before).toBeGreaterThan(0);
  const field = screen.getByLabelText(/^Reading, /);
  await userEvent.type(field, '58.9');
  expect(field).toHaveValue('58.9');
  expect(rendered).toBe(before);
});
