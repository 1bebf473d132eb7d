import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { components } from '@lanternwright/core/inspection';
import { quantity } from '@lanternwright/core/quantity';
import type { Tool } from '@lanternwright/core/tool';
import { isDrawn } from '../ui/condition-drawing.tsx';
import { openingOn, supervisor, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { heading, jobAt, onFreshDevice, openPage, step } from './testing/open-page.tsx';

onFreshDevice();

const wrench = (code: string, [min, max]: [number, number], calibratedUntil: string): Tool => ({
  id: `00000000-0000-4000-8000-0000000000${code.slice(-2)}`,
  kind: 'torque-wrench',
  code,
  title: 'Wrench',
  calibratedUntil,
  min: quantity(min, 'lbf-ft'),
  max: quantity(max, 'lbf-ft'),
});
const crib = [
  wrench('TW-01', [40, 250], '2099-01-31'),
  wrench('TW-03', [100, 600], '2099-01-31'),
  wrench('TW-04', [40, 250], '2020-10-31'),
  wrench('TW-06', [300, 1200], '2099-01-31'),
];

describe('the tool of a torque', () => {
  it('is offered from those in calibration and able to do it; the others say why not', async () => {
    const { sent, user } = await openPage(jobAt('seat'), undefined, crib);
    await heading('Seat the bearings');
    const offered = within(step().getByRole('group', { name: 'Torque wrench: those that can do this' }));
    expect(offered.getAllByRole('button').map((b) => b.textContent.slice(0, 5))).toEqual(['TW-01', 'TW-03']);
    expect(step().getByText('TW-04 is out of calibration since 2020-10-31')).toBeDefined();
    expect(step().getByText('TW-06 is good from 300 to 1200 lbf·ft')).toBeDefined();
    await user.type(step().getByLabelText('Torque wrench'), 'tw-04');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    expect(sent).toHaveLength(0);
    await user.click(offered.getByRole('button', { name: /^TW-01/ }));
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    // No torque is pre-filled as reached.
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText(/^Reached/), '200');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ data: { tool: 'TW-01', listed: { code: 'TW-01' } } }),
    );
  });

  /** A job at a step, its torques before it reached with one wrench. */
  const withWrench = (code: string, stepId: string) => {
    const t = jobAt('seat');
    const listed = crib.find((w) => w.code === code)!;
    const data = { kind: 'torque' as const, torque: quantity(200, 'lbf-ft'), tool: code, rounds: 1, listed };
    while (t.step('2L')!.id !== stepId)
      t.recordStep('2L', t.step('2L')!.kind === 'torque' ? data : undefined);
    return t;
  };
  const again = () => step().queryByRole('button', { name: 'Record it, with TW-03 again' });

  it('that was used before is offered again by name, and records by one press', async () => {
    const { sent, user } = await openPage(withWrench('TW-03', 'seat-2'), undefined, crib);
    await heading('Seat the bearings, second round');
    await user.click(again()!);
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText(/^Reached/), '200');
    await user.click(again()!);
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { listed: { code: 'TW-03' } } }));
  });

  it('that was used before is not offered where it cannot do it', async () => {
    await openPage(withWrench('TW-03', 'set'), undefined, crib);
    await heading('Set torque');
    await screen.findByText(/^TW-03 is good from/);
    expect(again()).toBeNull();
  });

  it('with a multiplier is judged by what is set on it, and the record says so', async () => {
    const { sent, user } = await openPage(jobAt('jam-nut', 'a-drive-dowel'), undefined, crib);
    await user.type(await step().findByLabelText(/^Reached/), '350');
    expect(step().queryByRole('button', { name: /^TW-01/ })).toBeNull();
    await user.click(step().getByText('With an adapter or a multiplier'));
    await user.type(step().getByLabelText('Multiplier, 1 to'), '4');
    await user.click(step().getByRole('button', { name: /^TW-01/ }));
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ data: { tool: 'TW-01', via: { multiplier: { ratio: 4 } } } }),
    );
  });
});

describe('an adapter', () => {
  const adapter = (code: string, drive: '1/2' | '3/4'): Tool => ({
    ...{ id: `00000000-0000-4000-8000-0000000001${code.slice(-2)}`, kind: 'adapter', code, drive },
    ...{ title: 'Adapter', calibratedUntil: null, length: quantity(100, 'mm') },
  });
  const long: Tool = { ...wrench('TW-01', [40, 250], '2099-01-31'), drive: '1/2' } as Tool;
  /** 200 lbf·ft reached with TW-01, and what stands between opened. */
  const atTheAdapter = async (tools: Tool[]) => {
    const opened = await openPage(jobAt('seat'), undefined, tools);
    await heading('Seat the bearings');
    await opened.user.type(step().getByLabelText(/^Reached/), '200');
    await opened.user.click(step().getByRole('button', { name: /^TW-01/ }));
    await opened.user.click(step().getByText('With an adapter or a multiplier'));
    return opened;
  };

  it('from the list lowers what is set; half told it is not taken for a straight wrench', async () => {
    const tools = [long, adapter('AD-01', '1/2'), adapter('AD-02', '3/4')];
    const { sent, user } = await atTheAdapter(tools);
    expect(step().getByText('AD-02 is for a drive of 3/4 in')).toBeDefined();
    await user.click(step().getByRole('button', { name: /^AD-01/ }));
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    expect(step().getAllByText(/^Enter the length of the wrench/)).toHaveLength(2);
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText('Wrench, mm'), '400');
    expect(step().getByText('160 lbf·ft')).toBeDefined();
    await user.click(step().getByLabelText(/stands square/));
    expect(step().getByText('200 lbf·ft', { selector: '.font-semibold' })).toBeDefined();
    await user.click(step().getByLabelText(/stands square/));
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    const via = { wrenchLengthMm: 400, adapter: { lengthMm: 100, angleDeg: 0, code: 'AD-01' } };
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { tool: 'TW-01', via } }));
  });

  it('takes the wrench as long as the list says; one that is typed over is not the listed one any more', async () => {
    const listed = { ...long, length: quantity(400, 'mm') } as Tool;
    const { sent, user } = await atTheAdapter([listed, adapter('AD-01', '1/2')]);
    expect(step().queryByLabelText('Wrench, mm')).toBeNull();
    await user.click(step().getByRole('button', { name: /^AD-01/ }));
    await user.type(step().getByLabelText('Adapter, mm'), '{Backspace}{Backspace}{Backspace}200');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    const via = { wrenchLengthMm: 400, adapter: { lengthMm: 200, angleDeg: 0 } };
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { via } }));
  });
});

describe('judging', () => {
  it('has a drawing for every condition of every part', () => {
    const missing = components.flatMap((c) =>
      c.conditions.filter((o) => !isDrawn(c.id, o.id)).map((o) => `${c.id}/${o.id}`),
    );
    expect(missing).toEqual([]);
  });

  it('names what was not looked at, and records what was touched', async () => {
    const { sent, user } = await openPage(jobAt('judge-parts'));
    await heading('Judge the parts');
    await user.click(step().getByRole('radio', { name: /^Bent, cracked/ }));
    await user.click(step().getByRole('button', { name: 'Record what was found' }));
    expect(step().getByText(/^Not looked at yet: Studs, /)).toBeDefined();
    await user.click(step().getByRole('button', { name: 'The rest is sound' }));
    await user.click(step().getByRole('button', { name: 'Record what was found' }));
    // The new cage is asked for in Ready before anything goes back together.
    await heading('Tools, parts and lubricant at hand');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ data: { kind: 'judge' } });
    await user.click(
      within(step().getByRole('radiogroup', { name: 'Cage' })).getByRole('radio', { name: 'Have it' }),
    );
    await user.click(step().getByRole('button', { name: 'Ready' }));
    await heading('New beside old');
    expect(screen.getByRole('group', { name: 'Cage' })).toBeDefined();
  });
});

describe('new beside old', () => {
  it('wants a reason for what differs', async () => {
    const { sent, user } = await openPage(jobAt('compare'));
    await heading('New beside old');
    const seal = within(step().getByRole('group', { name: 'Hub seal' }));
    await user.click(seal.getByRole('button', { name: 'Width' }));
    await user.click(step().getByRole('button', { name: 'Record what differs' }));
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText(/not as the old/), 'Newer pattern, sits deeper');
    await user.click(step().getByRole('button', { name: 'Record what differs' }));
    await heading('Oil the bearings');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ data: { note: 'Newer pattern, sits deeper' } });
  });
});

describe('the seal', () => {
  it('is reckoned from the measured journal while it is typed, and a bad depth is refused in words', async () => {
    const { sent, user } = await openPage(jobAt('seal'));
    await heading('Seal in');
    await user.click(step().getByLabelText('Outside dry'));
    await user.click(step().getByLabelText('Set to a measured depth'));
    const fields: [RegExp, string][] = [
      [/^A\. Hub face/, '40 mm'],
      [/^B\. /, '27 mm'],
      [/^C\. /, '37 mm'],
      [/main lip/, '3 mm'],
      [/^Deepest/, '12 mm'],
    ];
    for (const [label, text] of fields) await user.type(step().getByLabelText(label), text);
    // Shoulder 40 below the face: journal 3 to 13, lip 3 in, 1 clear at both ends: 1 to 9 (geometry).
    expect(step().getByRole('status').textContent).toMatch(/Clear from 0\.039 in to 0\.354 in/);
    await user.type(step().getByLabelText(/^Seal set at/), '11 mm');
    await user.click(step().getByRole('button', { name: 'Seal is in' }));
    expect(await step().findByText(/a lip does not run on sound journal/)).toBeDefined();
    await user.clear(step().getByLabelText(/^Seal set at/));
    await user.type(step().getByLabelText(/^Seal set at/), '5 mm');
    await user.click(step().getByRole('button', { name: 'Seal is in' }));
    await heading('Hub on');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({
      data: {
        outside: 'dry',
        depth: { value: 5, unit: 'mm' },
        touched: { faceToBearing: { value: 40, unit: 'mm' }, journalTo: { value: 37, unit: 'mm' } },
        seat: { journalStart: { value: 3, unit: 'mm' }, journalEnd: { value: 13, unit: 'mm' } },
      },
    });
  });
});

describe('rocking', () => {
  it('asks where the tip stood; on the rim it is a tilt, held against nothing but another rocking', async () => {
    const { sent, user } = await openPage(jobAt('rock'));
    await heading('Rock the wheel');
    await user.click(step().getByRole('button', { name: 'Moves both ways' }));
    await user.type(step().getByLabelText(/^Axle end to hub/), '0.5 mm');
    await user.click(step().getByRole('button', { name: 'Record the movement' }));
    expect(step().getByText('Choose where the tip stood')).toBeDefined();
    expect(step().queryByText('The bearing is loose.')).toBeNull();
    await user.click(step().getByLabelText('On the rim'));
    await user.click(step().getByRole('button', { name: 'Record the movement' }));
    expect(step().getByText(/without it nothing can be compared/)).toBeDefined();
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText(/^From the middle of the axle/), '250 mm');
    // 0.5 mm at 250 mm is 2 mm per metre (geometry).
    expect(step().getByRole('status').textContent).toMatch(/tilts 2\.0 mm per metre/);
    await user.click(step().getByRole('button', { name: 'Record the movement' }));
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ data: { tipAt: 'rim', radius: { value: 250, unit: 'mm' } } });
    expect(sent[0]).not.toMatchObject({ data: { bearingLimit: expect.anything() as unknown } });
  });

  it('square on the hub it is end play, and the sheet’s band holds', async () => {
    const { user } = await openPage(jobAt('rock'));
    await heading('Rock the wheel');
    await user.click(step().getByRole('button', { name: 'Moves both ways' }));
    await user.type(step().getByLabelText(/^Axle end to hub/), '0.5 mm');
    await user.click(step().getByLabelText('Square on the end of the hub'));
    expect(step().getByText('The bearing is loose.')).toBeDefined();
  });
});

describe('the lock', () => {
  it('is looked at by a second person in a step of its own, with their own password', async () => {
    const { sent, user } = await openPage(jobAt('lock'));
    await user.click(await step().findByLabelText('One tang bent'));
    await user.click(step().getByRole('button', { name: 'Record the lock' }));
    await heading('A second person looks at the lock');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(step().queryByRole('button', { name: 'Yes' })).toBeNull();
    expect(step().queryByRole('button', { name: 'Skip this step' })).toBeNull();
    const sign = step().getByRole('button', { name: 'Looked at: it is locked' });
    expect(sign).toHaveProperty('disabled', true);
    await user.type(step().getByLabelText('Name of the second person'), 'sup');
    await user.type(step().getByLabelText('Their password'), 'not this one');
    expect(sign).toHaveProperty('disabled', false);
  });

  it('is looked at by whoever is signed in, where another made it', async () => {
    const t = jobAt('lock');
    t.recordStep('2L');
    const { sent, user } = await openPage(t, supervisor);
    await user.click(await step().findByRole('button', { name: 'Yes' }));
    await waitFor(() => expect(sent[0]).toMatchObject({ stepId: 'lock-looked-at', data: { ok: true } }));
  });
});

describe('going deeper', () => {
  it('adds work with what was found; the stack and the steps follow', async () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['wheel-off']));
    t.workTo('2L', 'wheel-off');
    const { sent, user } = await openPage(t);
    await user.click(await step().findByRole('button', { name: 'Add work found' }));
    const add = () => step().getByRole('button', { name: /^(Choose the work|Add:)/ });
    expect(add()).toHaveProperty('disabled', true);
    await user.click(step().getByRole('button', { name: 'Seal, renew' }));
    expect(add()).toHaveProperty('disabled', true);
    await user.type(step().getByLabelText('What was found'), 'Oil on the inside of the tyre');
    await user.click(add());
    await waitFor(() =>
      expect(sent[0]).toMatchObject({
        kind: 'work-added',
        work: 'seal',
        reason: 'Oil on the inside of the tyre',
      }),
    );
    expect(screen.getByText('Seal, renew')).toBeDefined();
    // What the deeper work needs is asked for before it goes on.
    await heading('Tools, parts and lubricant at hand');
  });

  it('keeps what is being filled in while the step beside it is recorded', async () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['wheel-off']));
    t.workTo('2L', 'wheel-off');
    const { sent, user } = await openPage(t);
    await user.click(await step().findByRole('button', { name: 'Add work found' }));
    await user.click(step().getByRole('button', { name: 'Seal, renew' }));
    await user.type(step().getByLabelText('What was found'), 'Oil on the inside');
    const title = step().getByRole('heading', { level: 2 }).textContent;
    await user.click(step().getByRole('button', { name: 'Done' }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(step().getByRole('heading', { level: 2 }).textContent).not.toBe(title);
    expect(step().getByLabelText<HTMLInputElement>('What was found').value).toBe('Oil on the inside');
    expect(step().getByRole('button', { name: 'Add: seal, renew' })).toBeDefined();
  });

  it('only a supervisor says that it is built differently', async () => {
    await openPage(jobAt('wheel-off'));
    await step().findByRole('button', { name: 'Add work found' });
    expect(step().queryByRole('button', { name: 'Different construction' })).toBeNull();
  });
});

describe('hub heat', () => {
  it('is held against the air as well, and a hot hub asks what was looked at', async () => {
    const { sent, user } = await openPage(jobAt('hub-heat'));
    await heading('Hub heat after the road');
    await user.type(step().getByLabelText(/^This hub/), '90');
    await user.type(step().getByLabelText(/^The other side/), '50');
    await user.click(step().getByRole('button', { name: 'Record the temperatures' }));
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText(/^The air/), '12');
    expect(step().getByText(/^Much warmer than the air/)).toBeDefined();
    await user.clear(step().getByLabelText(/^This hub/));
    await user.type(step().getByLabelText(/^This hub/), '140');
    expect(step().getByText(/^More than 95 K over the air/)).toBeDefined();
    await user.type(step().getByLabelText('What was looked at'), 'Brake drags');
    await user.click(step().getByRole('button', { name: 'Record the temperatures' }));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { kind: 'heat', note: 'Brake drags' } }));
  });
});
