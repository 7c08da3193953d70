import { expect, test } from '@playwright/test';
import { clickWords, drag, keep, newcomer, opened, painted, placeOf, expectSeen } from './helpers';

test('two people do the whole job once', async ({ browser }) => {
  const teacher = await newcomer(browser, 'Maud');
  const student = await newcomer(browser, 'Nils');
  const outsider = await newcomer(browser, 'Ola');
  const t = teacher.page;
  const s = student.page;

  await test.step('a page is kept, with its metadata, and opens', async () => {
    await keep(t, 'http://packet.saltmere.test/who-pays');
    await expectSeen(t.getByRole('heading', { name: 'Who pays for high water?' }));
    const frame = await opened(t);
    await expectSeen(frame.getByText('The letter that reached eleven households'));
    await expect(frame.getByText('614 partners')).toBeHidden();
  });
  const address = t.url();
  const markup = () => t.evaluate(() => document.querySelector('iframe')!.contentDocument!.documentElement.outerHTML);
  const before = await markup();

  await test.step('words are selected and marked by a digit, by the legend and by Enter', async () => {
    await drag(t, 'a sea defence that nobody pays for');
    await t.keyboard.press('1');
    await drag(t, 'One had framed it.');
    await t.getByRole('button', { name: 'Doubt' }).click();
    await drag(t, 'By Friday three had answered.');
    await t.keyboard.press('Enter');
    await expect
      .poll(() => painted(t))
      .toEqual({
        'avrelle-weld-solid': ['a sea defence that nobody pays for'],
        'avrelle-madder-double': ['By Friday three had answered.', 'One had framed it.'],
      });
  });

  await test.step('selecting and typing writes a note level with its passage, with tags', async () => {
    await drag(t, 'Nothing, for a while.');
    await t.keyboard.type('Two words of comfort.');
    await t.getByLabel('Tags').fill('#retreat comfort');
    await t.getByRole('button', { name: 'Save', exact: true }).click();
    const note = t.getByRole('article', { name: /Note, Maud/ });
    await expect(note).toContainText('Two words of comfort.');
    await expect(note).toContainText('#comfort #retreat');
    const passage = await placeOf(t, 'Nothing, for a while.');
    expect(Math.abs((await note.boundingBox())!.y + 14 - passage.from.y)).toBeLessThan(24);
  });

  await test.step('a kind is changed, a mark deleted, and both are undone', async () => {
    await clickWords(t, 'One had framed it.');
    const card = t.getByRole('article', { name: /Doubt, Maud/ });
    await card.getByRole('button', { name: /^Kind/ }).click();
    await t.getByRole('menuitem', { name: 'Evidence' }).click();
    await expect.poll(async () => (await painted(t))['avrelle-verdigris-dashed']).toEqual(['One had framed it.']);
    await t
      .getByRole('article', { name: /Evidence, Maud/ })
      .getByRole('button', { name: 'Delete' })
      .click();
    await expect.poll(async () => (await painted(t))['avrelle-verdigris-dashed']).toBeUndefined();
    await t.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(async () => (await painted(t))['avrelle-verdigris-dashed']).toEqual(['One had framed it.']);
    await t.keyboard.press('Control+z');
    await expect
      .poll(async () => (await painted(t))['avrelle-madder-double'])
      .toEqual(['By Friday three had answered.', 'One had framed it.']);
  });

  await test.step('after a reload all is there, and the page itself was never changed', async () => {
    const seen = await painted(t);
    await t.reload();
    await opened(t);
    await expect.poll(() => painted(t)).toEqual({ ...seen, 'avrelle-open': undefined });
    expect(await markup()).toBe(before);
  });

  let code = '';
  await test.step('the teacher makes a class, the student joins by its code', async () => {
    await t.goto('/classes');
    await t.getByLabel('Name').fill('Tide Watch');
    await t.getByRole('button', { name: 'Make it' }).click();
    code = (await t.getByTitle('Copy').textContent())!.trim();
    expect(code).toMatch(/^[A-HJ-NP-Z2-9]{6}$/);
    await s.goto('/classes');
    await s.getByLabel('Code from your teacher').fill('AAAAAA');
    await s.getByRole('button', { name: 'Join' }).click();
    await expect(s.getByRole('alert')).toContainText('No class has the code “AAAAAA”');
    await s.getByLabel('Code from your teacher').fill(code.toLowerCase());
    await s.getByRole('button', { name: 'Join' }).click();
    await expectSeen(s.getByRole('heading', { name: 'Tide Watch' }));
  });

  await test.step('the audience is in view, is changed, and the classmate sees the note appear without reloading', async () => {
    await t.goto(address);
    await opened(t);
    await t.getByRole('button', { name: 'Writing for: Only me' }).click();
    await t.getByRole('menuitemcheckbox', { name: /Tide Watch/ }).click();
    await t.keyboard.press('Escape');
    await expectSeen(t.getByRole('button', { name: 'Writing for: Tide Watch' }));
    await s.getByRole('link', { name: 'Who pays for high water?' }).click();
    await opened(s);
    expect(await painted(s)).toEqual({});
    await t
      .getByRole('article', { name: /Note, Maud/ })
      .getByRole('button', { expanded: false })
      .click();
    await t.getByRole('button', { name: 'Seen by: Only me' }).click();
    await t.getByRole('menuitemcheckbox', { name: /Tide Watch/ }).click();
    await t.keyboard.press('Escape');
    await expect(s.getByRole('article', { name: /Note, Maud/ })).toContainText('Two words of comfort.');
    expect(await painted(s)).toEqual({ 'avrelle-plain-hairline': ['Nothing, for a while.'] });
  });

  await test.step('the classmate answers; the author sees it at once and on the Desk', async () => {
    await s
      .getByRole('article', { name: /Note, Maud/ })
      .getByRole('button', { expanded: false })
      .click();
    await s.getByLabel('Reply').fill('Comfort for whom?');
    await s.getByRole('button', { name: 'Reply' }).click();
    await expect(t.getByRole('article', { name: /Note, Maud/ })).toContainText('Comfort for whom?');
    await expectSeen(t.getByLabel('1 new'));
    await t.getByRole('link', { name: /^Desk/ }).click();
    await expect(t.getByRole('region', { name: 'New for you' })).toContainText('Nils T. answered');
    await t.getByRole('link', { name: /Comfort for whom/ }).click();
    await opened(t);
    await expect(t.getByRole('article', { name: /Note, Maud/ })).toBeInViewport();
  });

  await test.step('taken back to only me, it vanishes from the classmate’s page', async () => {
    await t.getByRole('button', { name: 'Seen by: Tide Watch' }).click();
    await t.getByRole('menuitem', { name: 'Only me' }).click();
    await expect(s.getByRole('article', { name: /Note, Maud/ })).toHaveCount(0);
    await expect.poll(() => painted(s)).toEqual({});
  });

  await test.step('nobody outside sees any of it', async () => {
    const o = outsider.page;
    await o.goto(new URL(address).pathname);
    await expect(o.getByRole('alert')).toContainText('There is no such source, or it is not shared with you');
    await o.goto('/find?q=comfort');
    await expectSeen(o.getByText('Nothing you can see holds that'));
  });

  await test.step('words are found in texts and notes; one click opens the place', async () => {
    await t.getByLabel('Find a passage, note or tag').fill('comfort');
    await t.keyboard.press('Enter');
    await expect(t.getByRole('region', { name: 'Marks and notes' })).toContainText('Two words of comfort.');
    await t.getByLabel('Find a passage, note or tag').fill('wheelbar');
    await t.keyboard.press('Enter');
    await t.getByRole('tab', { name: /^Sources/ }).click();
    await expect(t.getByRole('list', { name: 'Sources' })).toContainText('WHEELBARROW');
    await t.getByLabel('Find a passage, note or tag').fill('"nine times"');
    await t.keyboard.press('Enter');
    await t.getByRole('tab', { name: /^Sources/ }).click();
    await t
      .getByRole('list', { name: 'Sources' })
      .getByRole('link', { name: /nine times/ })
      .click();
    await opened(t);
    await expect.poll(async () => (await painted(t))['avrelle-found']).toEqual(['nine times']);
  });

  await test.step('highlights and notes are taken out to the clipboard and as a file', async () => {
    await t.getByRole('button', { name: /Export/ }).click();
    await t.getByRole('button', { name: 'Copy' }).click();
    await expectSeen(t.getByText('Study notes copied. Paste them wherever you write.', { exact: true }));
    const copied = await t.evaluate(() => navigator.clipboard.readText());
    expect(copied).toContain('title: Who pays for high water?');
    expect(copied.indexOf('> By Friday')).toBeLessThan(copied.indexOf('> Nothing, for a while'));
    expect(copied).toContain('Two words of comfort.\n\n#comfort #retreat');
    const download = t.waitForEvent('download');
    await t.getByRole('link', { name: 'Save as file' }).click();
    expect((await download).suggestedFilename()).toBe('who-pays-for-high-water.md');
  });
  await Promise.all([teacher, student, outsider].map((p) => p.close()));
});

test('an account is made, left and entered again; where one wanted to go is where one arrives', async ({ browser }) => {
  const context = await browser.newContext({ extraHTTPHeaders: { 'x-forwarded-for': '10.30.0.1' } });
  const page = await context.newPage();
  await page.goto('/classes');
  await page.getByRole('button', { name: 'Make an account' }).click();
  await page.getByLabel('Your name').fill('Una Test');
  await page.getByLabel('E-mail address').fill('una');
  await page.getByLabel('Password').fill('a long enough password');
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByRole('alert')).toContainText('name@example.test');
  const email = `una.${Date.now()}@college.saltmere.test`;
  await page.getByLabel('E-mail address').fill(email);
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expectSeen(page.getByText('You are in no class yet.'));
  await page.getByRole('button', { name: 'Una T.' }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await expectSeen(page.getByRole('heading', { name: 'Sign in' }));
  expect((await page.request.get('/api/sources')).status()).toBe(401);
  await page.getByLabel('E-mail address').fill(email);
  await page.getByLabel('Password').fill('a long enough password');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expectSeen(page.getByRole('heading', { name: 'Desk' }));
  await context.close();
});
