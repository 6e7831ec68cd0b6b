import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, test } from 'vitest';
import { showOnBench, stubServer } from '../../test-bench';
import { aFeature, aGauge, aJob } from '../../test-builders';
import { Pad } from './Pad';

const server = stubServer(() =>
  Response.json({ tag: 'C-2', decides: false, sentence: 'Not so near the limit.', working: null }),
);

const PIN = aFeature({
  key: 'pin',
  stations: [{ key: '12', plane: '', direction: '12', label: '12' }],
  made: ['M-4', 'C-2'],
  fits: [{ tag: 'M-4', decides: true, sentence: 'It decides.', working: null }],
  gauge: 'M-4',
});
const GAUGES = [aGauge('M-4', 'outside micrometer'), aGauge('C-2', 'caliper'), aGauge('B-1', 'bore gauge')];

function Measured() {
  const [version, setVersion] = useState(1);
  return (
    <>
      <button onClick={() => setVersion(2)}>measured</button>
      <Pad job={aJob({ version, features: [PIN], gauges: GAUGES })} feature={PIN} phase="found" />
    </>
  );
}

test('what a gauge can do is told of the part as it stands; until it is known, that it is not', async () => {
  showOnBench(<Measured />);
  expect(screen.getByText('It decides.')).toBeInTheDocument();
  expect(server.sent).toEqual([]);
  const gauge = screen.getByLabelText('Gauge in hand');
  await userEvent.selectOptions(gauge, 'C-2');
  expect(await screen.findByText('Not so near the limit.')).toBeInTheDocument();
  server.answer = () => new Promise(() => undefined) as unknown as Response;
  await userEvent.click(screen.getByText('measured'));
  expect(screen.getByText('Whether C-2 can decide this is being asked.')).toBeInTheDocument();
  expect(screen.queryByText('Not so near the limit.')).toBeNull();
  await userEvent.selectOptions(gauge, 'B-1');
  expect(screen.getByText(/A bore gauge is not made for this/)).toBeInTheDocument();
  expect(server.sent.map(({ url }) => new URL(url).pathname)).toEqual(
    Array(2).fill('/api/jobs/5/fits/pin/C-2'),
  );
});
