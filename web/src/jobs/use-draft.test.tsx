import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { DraftScope, forgetDrafts, useDraft } from './use-draft.ts';

beforeEach(() => sessionStorage.clear());
afterEach(cleanup);

function Field() {
  const [text, setText] = useDraft('text', 'as it was');
  return <input aria-label="Field" value={text} onChange={(e) => setText(e.target.value)} />;
}
const show = (scope: string | null) =>
  render(
    <DraftScope value={scope}>
      <Field />
    </DraftScope>,
  );
const value = () => screen.getByLabelText<HTMLInputElement>('Field').value;

it('what is typed is there again in its own scope, until it is recorded', async () => {
  show('job/2L/step');
  await userEvent.setup().type(screen.getByLabelText('Field'), ', and more');
  cleanup();
  show('job/2R/step');
  expect(value()).toBe('as it was');
  cleanup();
  show('job/2L/step');
  expect(value()).toBe('as it was, and more');
  cleanup();
  forgetDrafts('job/2L/step');
  show('job/2L/step');
  expect(value()).toBe('as it was');
});

it('outside a scope nothing is kept', async () => {
  show(null);
  await userEvent.setup().type(screen.getByLabelText('Field'), ' x');
  expect(sessionStorage.length).toBe(0);
});
