import { expect, test } from '@playwright/test';
import type { AnnotationPage } from '@avrelle/core/wire';
import { beyond, ofApi, violations } from './accessible';
import { drag, expectSeen, makeClass, newcomers, opened, painted } from './helpers';

test('two classes hear a recording in order and read it together; a student sees their own record', async ({
  browser,
}) => {
  const [teacher, one, other] = await newcomers(browser, 'Effa', 'Brid', 'Olle');
  const [t, a, b] = [teacher.page, one.page, other.page];
  await makeClass(t, 'Mud Walk', [a]);
  const [, mud] = /classes\/([^/]+)/.exec(t.url())!;
  await makeClass(t, 'Salt Walk', [b]);

  await test.step('it is set for both at once, to be heard in order, and read together', async () => {
    await t.goto('/library');
    await t
      .getByLabel('File to keep')
      .setInputFiles(['demo/files/walk-along-the-bank.ogg', 'demo/files/walk-along-the-bank.vtt']);
    await t.getByRole('list', { name: 'Being kept' }).getByRole('link', { name: 'Open it' }).click();
    await opened(t);
    await t.goto(`/classes/${mud}/set`);
    await t.getByLabel('Which source?').fill('walk');
    await t.getByRole('link', { name: /walk/i }).first().click();
    await t.getByLabel(/^It is heard in order/).check();
    await t.getByLabel('Salt Walk').check();
    await t.getByLabel(/^They read it together/).check();
    await expectSeen(t.getByText(/^From now on\. What students wrote before stays/));
    await t.getByRole('button', { name: 'Set it for Mud Walk' }).click();
    await expectSeen(t.getByText('The reading is set for Mud Walk and 1 more class.', { exact: true }));
    await expectSeen(t.getByText(/heard in order · read together with Salt Walk/));
  });

  const player = (page: typeof a) => page.getByRole('region', { name: 'Recording' });
  const heard = a.getByText(/^Your class hears it in order: you can go back, and ahead to 0:0\d/);
  await test.step('ahead one goes only to where it was heard, by pointer, by key, and after a reload', async () => {
    await a.goto(`/classes/${mud}`);
    await a.getByRole('link', { name: /walk/i }).first().click();
    await opened(a);
    const moment = player(a).getByRole('slider', { name: 'Moment' });
    const line = (await moment.locator('xpath=../..').boundingBox())!;
    await a.mouse.click(line.x + line.width * 0.79, line.y + line.height / 2);
    await expectSeen(
      a.getByText('Not heard yet: this recording is heard in order, and goes on at 0:00.', { exact: true }),
    );
    await expect(moment).toHaveAttribute('aria-valuetext', /^0:00 /);
    await player(a).getByRole('button', { name: 'Play', exact: true }).click();
    await expect(heard).toHaveText(/ahead to 0:0[2-9]/);
    await player(a).getByRole('button', { name: 'Pause' }).click();
    await moment.focus();
    await a.keyboard.press('PageUp');
    await expect(moment).toHaveAttribute('aria-valuetext', /^0:0[2-9] /);
    // As a keyboard for music puts it elsewhere, without asking the page.
    await a.evaluate(() => {
      document.querySelector('video')!.currentTime = 60;
    });
    await expect.poll(() => a.evaluate(() => document.querySelector('video')!.currentTime)).toBeLessThan(10);
    await a.reload();
    await opened(a);
    await expect(heard).toHaveText(/ahead to 0:0[2-9]/);
  });

  await test.step('what is written for one class is seen and answered in the other, at once', async () => {
    await b.goto('/classes');
    await b.getByRole('link', { name: 'Salt Walk' }).click();
    await b.getByRole('link', { name: /walk/i }).first().click();
    await opened(b);
    await expectSeen(b.getByText('Read together with Mud Walk', { exact: true }));
    await a.getByRole('button', { name: 'Write for Mud Walk' }).click();
    await expectSeen(a.getByRole('button', { name: 'Writing for: Mud Walk' }));
    await drag(a, 'The bank broke here');
    await a.keyboard.press('1');
    await expect.poll(async () => (await painted(b))['avrelle-weld-solid']).toEqual(['The bank broke here']);
    await a.getByRole('button', { name: 'Writing for: Mud Walk' }).click();
    await expectSeen(a.getByText('2 people, and Salt Walk', { exact: true }));
    await a.keyboard.press('Escape');
  });

  await test.step('the teacher sees how all of them read it, the student the same of themselves', async () => {
    await t.goto(`/classes/${mud}`);
    await t.getByRole('link', { name: 'How they read it' }).click();
    const row = t.getByRole('table', { name: 'Students' }).getByRole('row', { name: /^Brid Test/ });
    await expect(row).toContainText(/0:0[2-9]/);
    await a.goto(`/classes/${mud}`);
    await a.getByRole('link', { name: 'How I read it' }).click();
    await expectSeen(a.getByRole('heading', { name: 'How I read it' }));
    const own = a.getByRole('table').getByRole('row', { name: /^Brid Test/ });
    await expect(own).toContainText(/0:0[2-9]/);
    await expect(own.getByRole('button')).toHaveCount(0);
    await a.setViewportSize({ width: 320, height: 640 });
    expect([await violations(a, 'all'), await beyond(a)]).toEqual([[], 0]);
  });

  await test.step('chosen marks go to another class, and to one more; one undo takes that back', async () => {
    await makeClass(t, 'Late Walk', []);
    await t.goto('/library');
    await t.getByRole('link', { name: /walk/i }).first().click();
    await opened(t);
    await drag(t, 'The bank broke here');
    await t.keyboard.press('2');
    await expect.poll(async () => (await painted(t))['avrelle-verdigris-dashed']).toEqual(['The bank broke here']);
    const classes = async (): Promise<(number | undefined)[]> =>
      (await ofApi<AnnotationPage>(t, '/api/annotations?q=is:mine')).annotations.map((m) => m.classIds.length);
    const choose = async (item: string): Promise<void> => {
      await t.getByRole('checkbox').first().check();
      const bar = t.getByRole('region', { name: 'The chosen marks' });
      await bar.getByRole('button', { name: 'Seen by' }).click();
      await t.getByRole('menuitem', { name: item, exact: true }).click();
    };
    await t.goto('/find?q=is%3Amine');
    await t.getByRole('tab', { name: /^Marks and notes/ }).click();
    // Late Walk does not read it yet, and does with that.
    await choose('Only Late Walk');
    await expectSeen(t.getByText('1 mark for Late Walk alone.', { exact: true }));
    await choose('Salt Walk as well');
    await expectSeen(t.getByText('1 mark for Salt Walk as well.', { exact: true }));
    expect(await classes()).toEqual([2]);
    await t.getByRole('button', { name: 'Undo' }).last().click();
    await expect.poll(classes).toEqual([1]);
  });
  for (const { close } of [teacher, one, other]) await close();
});
