/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { STARTING_LEGEND } from '@avrelle/core/legend';
import type { Problem } from '@avrelle/core/wire';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { MemoryRouter } from 'react-router';
import { object, string } from 'yup';
import { ProblemError } from '../data/api';
import { Alert } from './Alert';
import { Boundary } from './Boundary';
import { Confirm } from './Confirm';
import { DataTable } from './DataTable';
import { FormField, useSchemaForm } from './Form';
import { MarkedText } from './MarkedText';
import { Menu } from './Menu';
import { MessagesProvider, useMessages } from './Messages';
import { PageHeading } from './PageHeading';
import { Marked, Sign } from './Sign';
import { SkipLink } from './SkipLink';
import { State } from './State';
import { Strand } from './Strand';
import { TagForm } from './TagForm';
import { TagNames, TintContext } from './TagNames';
import { Tick } from './Tick';

afterEach(cleanup);
const user = userEvent.setup();
const refused = (detail: string, field?: string): ProblemError =>
  new ProblemError({ type: '', title: 'No', detail, code: 'invalid', status: 422, field } as unknown as Problem);

test('an alert is there only where something is wrong', () => {
  const { rerender } = render(<Alert>{''}</Alert>);
  expect(screen.queryByRole('alert')).toBeNull();
  rerender(<Alert>Too long.</Alert>);
  expect(screen.getByRole('alert').textContent).toBe('Too long.');
});

test('what is on its way says so, what did not come says why, what came is shown', () => {
  const { rerender } = render(<State of={{ isPending: true, error: null }}>here</State>);
  expect(screen.getByRole('status').textContent).toBe('Loading…');
  rerender(<State of={{ isPending: false, error: refused('Gone for good.') }}>here</State>);
  expect(screen.getByRole('alert').textContent).toBe('Gone for good.');
  rerender(<State of={{ isPending: false, error: null }}>here</State>);
  expect(document.body.textContent).toBe('here');
});

test('a question that is answered with yes and fails stays open and says why; Cancel leaves everything', async () => {
  const run = jest.fn(() => Promise.reject(refused('It is in use.')));
  const close = jest.fn();
  render(
    <Confirm title="Delete it?" action="Delete" onClose={close} run={run}>
      <p>Five notes go with it.</p>
    </Confirm>,
  );
  const dialog = screen.getByRole('dialog', { name: 'Delete it?' });
  expect(dialog.textContent).toContain('Five notes go with it.');
  await user.click(screen.getByRole('button', { name: 'Delete' }));
  expect((await screen.findByRole('alert')).textContent).toBe('It is in use.');
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Delete' }).disabled).toBe(false);
  expect(close).not.toHaveBeenCalled();
  await user.click(screen.getByRole('button', { name: 'Cancel' }));
  expect([run.mock.calls.length, close.mock.calls.length]).toEqual([1, 1]);
});

const schema = object({ name: string().required('Give it a name.'), code: string().default('') });
function Named({ send }: { readonly send: (values: object) => Promise<unknown> }) {
  const { form, submit } = useSchemaForm(schema, { name: '', code: '' }, send);
  return (
    <form onSubmit={submit}>
      <FormField form={form} name="name" label="Name" />
      <FormField form={form} name="code" label="Code" />
      <Alert>{form.formState.errors.root?.message}</Alert>
      <button>Save</button>
    </form>
  );
}

test('a form asks the server only for what its schema lets through, and says what is wrong beside its field', async () => {
  const send = jest.fn<(values: object) => Promise<unknown>>();
  send.mockRejectedValueOnce(refused('That code is used.', 'code')).mockRejectedValueOnce(refused('Not now.'));
  render(<Named send={send} />);
  const save = screen.getByRole('button', { name: 'Save' });
  await user.click(save);
  expect((await screen.findByRole('alert')).textContent).toBe('Give it a name.');
  expect(send).not.toHaveBeenCalled();
  await user.type(screen.getByLabelText(/^Name/), 'Field Course');
  await user.click(save);
  expect((await screen.findByText('That code is used.')).closest('label')!.textContent).toContain('Code');
  expect(document.activeElement).toBe(screen.getByLabelText(/^Code/));
  await user.type(screen.getByLabelText(/^Code/), 'x');
  await user.click(save);
  const words = await screen.findByText('Not now.');
  expect(words.closest('label')).toBeNull();
  expect(send.mock.calls.at(-1)).toEqual([{ name: 'Field Course', code: 'x' }]);
});

test('a menu opens by keys and runs what is chosen, and is named with what it is about', async () => {
  const chosen = jest.fn();
  render(
    <Menu words="more" about="The Marsh">
      <DropdownMenu.Item onSelect={chosen}>Delete</DropdownMenu.Item>
    </Menu>,
  );
  screen.getByRole('button', { name: 'more The Marsh' }).focus();
  await user.keyboard('{Enter}');
  await user.click(await screen.findByRole('menuitem', { name: 'Delete' }));
  expect(chosen).toHaveBeenCalledTimes(1);
  expect(screen.queryByRole('menu')).toBeNull();
});

function Tell({ run }: { readonly run: () => void }) {
  const messages = useMessages();
  return <button onClick={() => messages.tell('Deleted', { label: 'Undo', run })}>Delete</button>;
}

test('a message offers what takes it back, once', async () => {
  const run = jest.fn();
  render(
    <MessagesProvider>
      <Tell run={run} />
    </MessagesProvider>,
  );
  await user.click(screen.getByRole('button', { name: 'Delete' }));
  await user.click(await screen.findByRole('button', { name: 'Undo' }));
  expect(run).toHaveBeenCalledTimes(1);
  expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull();
});

function Says({ words }: { words: string }) {
  const messages = useMessages();
  return <button onClick={() => messages.tell(words)}>Say</button>;
}

test('what is said once more stands there once', async () => {
  render(
    <MessagesProvider>
      <Says words="Not yet." />
    </MessagesProvider>,
  );
  for (let n = 0; n < 3; n++) await user.click(screen.getByRole('button', { name: 'Say' }));
  expect(screen.getAllByRole('listitem').map((item) => item.textContent)).toEqual(['Not yet.×']);
});

function Breaks(): never {
  throw new Error('broken on purpose');
}

test('a page that breaks leaves the rest standing, and another page is tried anew', () => {
  const silent = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  const at = (address: string, page: React.ReactNode) => (
    <MemoryRouter>
      <p>the rest</p>
      <Boundary at={address}>{page}</Boundary>
    </MemoryRouter>
  );
  const { rerender } = render(at('/a', <Breaks />));
  expect(screen.getByRole('heading').textContent).toBe('This page did not open');
  expect(screen.getByText('the rest')).toBeTruthy();
  rerender(at('/b', <p>another</p>));
  expect(screen.getByText('another')).toBeTruthy();
  silent.mockRestore();
});

test('a heading names its window; a skip link leads to it', async () => {
  render(
    <MemoryRouter>
      <SkipLink to="page-heading">Skip to the page</SkipLink>
      <PageHeading>Library</PageHeading>
    </MemoryRouter>,
  );
  expect(document.title).toBe('Library · Avrelle');
  await user.click(screen.getByRole('button', { name: 'Skip to the page' }));
  expect(document.activeElement).toBe(screen.getByRole('heading', { name: 'Library' }));
});

test('a table has a heading for each column and a row for each of what it lists', () => {
  const rows = [
    { id: 'a', name: 'Ines', notes: 3 },
    { id: 'b', name: 'Tomas', notes: 12 },
  ];
  render(
    <DataTable
      label="People"
      idOf={(row) => row.id}
      numbers={['notes']}
      rows={rows}
      columns={[
        { id: 'name', header: 'Name', cell: ({ row }) => row.original.name },
        { id: 'notes', header: 'Notes', cell: ({ row }) => row.original.notes },
      ]}
    />,
  );
  const table = screen.getByRole('table', { name: 'People' });
  expect(
    within(table)
      .getAllByRole('columnheader')
      .map((h) => h.textContent),
  ).toEqual(['Name', 'Notes']);
  const cells = within(table)
    .getAllByRole('cell')
    .map((c) => c.textContent);
  expect(cells).toEqual(['Ines', '3', 'Tomas', '12']);
});

test('tags are added as they are written, with or without their sign, and taken away', async () => {
  const [add, take] = [jest.fn(), jest.fn()];
  render(<TagForm tags={['mud']} onAdd={add} onTake={take} />);
  await user.click(screen.getByRole('button', { name: /Tags/ }));
  await user.type(await screen.findByRole('textbox', { name: 'Tags to add' }), '#essay accretion{Enter}');
  expect(add).toHaveBeenCalledWith(['essay', 'accretion']);
  await user.click(screen.getByRole('button', { name: /Tags/ }));
  await user.click(await screen.findByRole('button', { name: 'Take #mud away' }));
  expect(take).toHaveBeenCalledWith('mud');
});

test('a tag wears the ribbon of the nearest tag above it that has one', () => {
  render(
    <TintContext value={{ essay: 'moss' }}>
      <TagNames tags={['essay/opening', 'mud']} />
    </TintContext>,
  );
  expect(screen.getByText('#essay/opening').style.borderLeft).toContain('moss');
  expect(screen.getByText('#mud').style.borderLeft).toBe('');
});

test('what was looked for is marked within words that keep their emphasis', () => {
  const pieces = [{ text: 'the ' }, { text: 'marsh', hit: true, as: [{ type: 'emphasis' }] }, { text: ' dies' }];
  const { container } = render(<MarkedText pieces={pieces as never} />);
  expect(container.textContent).toBe('the marsh dies');
  expect(container.querySelector('em > mark')!.textContent).toBe('marsh');
});

function Choosing() {
  const [chosen, choose] = useState(false);
  return <Tick label="Choose The Marsh" checked={chosen} onChange={() => choose(!chosen)} />;
}

test('a box beside a row is named by it, and pressed anywhere on its label', async () => {
  render(<Choosing />);
  const box = screen.getByRole<HTMLInputElement>('checkbox', { name: 'Choose The Marsh' });
  await user.click(box.closest('label')!);
  expect(box.checked).toBe(true);
});

test('a kind is told by its line and its sign, never by colour alone', () => {
  const [claim, evidence] = STARTING_LEGEND;
  const { container } = render(
    <>
      <Sign kind={claim!} />
      <Marked look={claim!}>Claim</Marked>
      <Marked look={evidence!}>Evidence</Marked>
    </>,
  );
  expect(screen.getByText('Claim').className).not.toBe(screen.getByText('Evidence').className);
  expect(container.querySelector('[aria-hidden=true]')!.textContent).toBe(claim!.sign);
});

test('a strand has a stroke for each mark, shorter where they crowd', () => {
  const { container } = render(
    <Strand
      strand={{
        read: [[0, 0.5]],
        marks: [
          [0.1, 'weld'],
          [0.101, 'woad'],
          [0.9, 'weld'],
        ],
      }}
    />,
  );
  const heights = [...container.querySelectorAll('rect')].map((rect) => Number(rect.getAttribute('height')));
  expect(heights).toHaveLength(3);
  expect(heights[1]).toBeLessThan(heights[0]!);
  expect(heights[2]).toBe(heights[0]);
});
