/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { object, string } from 'yup';
import { FormField, useSchemaForm } from './Form';
import { keptForm, useKept } from './kept';
import { KeptBack } from './KeptBack';

const schema = object({ name: string().defined(), code: string().defined() });
const user = userEvent.setup();
const send = jest.fn(async (_version: number | null) => {});
const KEY = 'avrelle.form/ines/set/1';
const stored = () => JSON.parse(localStorage.getItem(KEY) ?? 'null') as unknown;

function Form({ version = 1 }: { readonly version?: number }) {
  const kept = useKept<{ name: string; code: string }>('ines', 'set/1', version);
  const { form, submit } = useSchemaForm(
    schema,
    { name: 'Marsh', code: '' },
    async () => {
      await send(kept.upon);
      kept.drop();
    },
    kept,
  );
  return (
    <form onSubmit={submit}>
      <KeptBack form={form} kept={kept} />
      <FormField form={form} name="name" label="Name" />
      <FormField form={form} name="code" label="Code" />
      <button>Save</button>
      {form.formState.isSubmitSuccessful && <p>Saved</p>}
    </form>
  );
}
const name = () => (screen.getByLabelText('Name') as HTMLInputElement).value;

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test('what was typed comes back in another visit, and goes on from the version of then', async () => {
  const { unmount } = render(<Form />);
  expect([stored(), screen.queryByRole('note')]).toEqual([null, null]);
  await user.type(screen.getByLabelText('Name'), ' and mud');
  unmount();
  render(<Form version={2} />);
  expect([name(), screen.getByRole('note').textContent]).toEqual(['Marsh and mud', expect.stringContaining('is back')]);
  await user.click(screen.getByRole('button', { name: 'Save' }));
  // Only once the form has told of it.
  await screen.findByText('Saved');
  expect(send).toHaveBeenLastCalledWith(1);
  expect(stored()).toBeNull();
});

test('one starts again with what is stored now; what is as it was is not kept', async () => {
  const { unmount } = render(<Form />);
  await user.type(screen.getByLabelText('Code'), 'x');
  expect(stored()).toEqual({ values: { name: 'Marsh', code: 'x' }, upon: 1 });
  unmount();
  render(<Form version={2} />);
  await user.click(screen.getByRole('button', { name: 'Start again' }));
  expect([name(), stored(), screen.queryByRole('note')]).toEqual(['Marsh', null, null]);
  await user.type(screen.getByLabelText('Code'), 'y');
  expect(stored()).toMatchObject({ upon: 2 });
  await user.clear(screen.getByLabelText('Code'));
  expect(stored()).toBeNull();
});

test('what goes on from a newer version keeps that, also after it was dropped', () => {
  const kept = keptForm('ines', 'set/1', 1);
  kept.goOn(5);
  kept.drop();
  kept.write({});
  expect(stored()).toEqual({ values: {}, upon: 5 });
});

test('each person has their own; what cannot be read counts as nothing', () => {
  keptForm('ines', 'set/1').write({ name: 'mine' });
  localStorage.setItem('avrelle.form/cal/set/1', 'no JSON');
  expect([keptForm('ines', 'set/1').begun, keptForm('tomas', 'set/1').begun, keptForm('cal', 'set/1').begun]).toEqual([
    { name: 'mine' },
    undefined,
    undefined,
  ]);
});
