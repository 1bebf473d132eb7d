import { waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { openingOn, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { onFreshDevice, openPage, step } from './testing/open-page.tsx';

onFreshDevice();

it('more work is added as it was found: several at once, with one reason', async () => {
  const { sent, user } = await openPage(new TestJob(openingOn(['2L'], 'a-trailer', ['brakes'])));
  const press = (name: string) => user.click(step().getByRole('button', { name }));
  await press('Add work found');
  await press('Seal, renew');
  await press('Studs, renew');
  await press('Adjust the bearings');
  await press('Adjust the bearings');
  await user.type(step().getByLabelText('What was found'), 'Oil on the shoes, a stud stretched');
  await press('Add: seal, renew; studs, renew');
  await waitFor(() => expect(sent).toHaveLength(2));
  const reason = 'Oil on the shoes, a stud stretched';
  expect(sent).toMatchObject([
    { kind: 'work-added', work: 'seal', reason },
    { kind: 'work-added', work: 'studs', reason },
  ]);
});
