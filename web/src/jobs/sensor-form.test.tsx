import { waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { openingOn, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { heading, onFreshDevice, openPage, step } from './testing/open-page.tsx';

onFreshDevice();

it('a sensor that gives too little, or half of the other side, is recorded only with what was found', async () => {
  const t = new TestJob(openingOn(['1L'], 'f-unitised', ['unit-hub']));
  t.workTo('1L', 'sensor-output');
  const { sent, user } = await openPage(t);
  await heading('Sensor measured');
  const record = () => user.click(step().getByRole('button', { name: 'Record the sensor' }));
  await record();
  expect(step().getByText('Choose how the sensor sits.')).toBeDefined();
  await user.click(step().getByRole('radio', { name: 'Set to a gap' }));
  await record();
  expect(sent).toHaveLength(0);
  await user.type(step().getByLabelText(/^Gap/), '0.7 mm');
  await user.type(step().getByLabelText('Gives here, mV'), '60');
  expect(step().getByText(/^It gives too little/)).toBeDefined();
  await user.clear(step().getByLabelText('Gives here, mV'));
  await user.type(step().getByLabelText('Gives here, mV'), '180');
  await user.type(step().getByLabelText('The other side, mV'), '400');
  expect(step().getByText(/^One side gives twice/)).toBeDefined();
  await record();
  expect(sent).toHaveLength(0);
  await user.type(step().getByLabelText('What was found'), 'Ring packed with rust, cleaned');
  await record();
  await waitFor(() =>
    expect(sent[0]).toMatchObject({
      data: { kind: 'sensor', set: 'gap', gap: { value: 0.7, unit: 'mm' }, here: { value: 180, unit: 'mV' } },
    }),
  );
});
