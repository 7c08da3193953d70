import { expect, test, type Browser, type Page } from '@playwright/test';
import { beyond, violations } from './accessible';
import { drawn } from './ink';
import { drag, expectSeen, keep, makeClass, newcomer, newcomers, opened, placeOf, shownWords } from './helpers';

const SENTENCES = ['Accretion is not spread evenly', 'the surface gains almost nothing'] as const;
const follows = (page: Page, name: string) =>
  page.getByRole('region', { name: 'Their screens' }).getByRole('listitem').filter({ hasText: name });

/** A class of its own that reads a page, on which its teacher has marked two passages and made steps of them. */
async function classWithSteps(browser: Browser, name: string) {
  const [teacher, ines, tomas] = await newcomers(browser, 'Aldous', 'Ines', 'Tomas');
  const { page } = teacher;
  await makeClass(page, name, [ines.page, tomas.page]);
  const classId = new URL(page.url()).pathname.split('/').at(-1)!;
  await keep(page, 'http://review.saltmere.test/marsh-that-walks-inland');
  const sourceId = new URL(page.url()).pathname.split('/').at(-1)!;
  for (const [n, words] of SENTENCES.entries()) {
    await drag(page, words);
    await page.keyboard.press(String(n + 1));
  }
  await expect
    .poll(() =>
      page.evaluate(
        async (id) => ((await (await fetch(`/api/sources/${id}/annotations`)).json()) as unknown[]).length,
        sourceId,
      ),
    )
    .toBe(2);
  await page.evaluate(
    async ([c, s]) => {
      const ask = async (method: string, url: string, body?: unknown) => {
        const headers = { 'content-type': 'application/json' };
        const answer = await fetch(url, { method, ...(body ? { headers, body: JSON.stringify(body) } : {}) });
        if (!answer.ok) throw new Error(`${method} ${url}: ${await answer.text()}`);
        return answer.status === 204 ? undefined : ((await answer.json()) as never);
      };
      await ask('PUT', `/api/classes/${c}/sources/${s}`);
      const marks = (await ask('GET', `/api/sources/${s}/annotations`))! as { id: string; version: number }[];
      await ask('POST', '/api/annotations/changes', {
        changes: marks.map(({ id, version }) => ({ id, version, classIds: [c] })),
      });
      const id = marks[0]!.id.slice(0, -4) + 'beef';
      const steps = marks.map(({ id: annotationId }) => ({ annotationId, words: 'Ask **who** agrees.' }));
      await ask('PUT', `/api/classes/${c}/walkthroughs/${id}`, { version: 0, name: 'Mud', steps });
    },
    [classId, sourceId] as const,
  );
  const url = `/classes/${classId}/live`;
  const begin = async (): Promise<void> => {
    await page.goto(url);
    await page.getByRole('button', { name: 'Show Mud' }).click();
    await expectSeen(page.getByText('step 1 of 2'));
    await opened(page);
  };
  const close = () => Promise.all([teacher, ines, tomas].map((one) => one.close()));
  return { teacher: page, ines: ines.page, tomas: tomas.page, classId, url, begin, close };
}

/** Where something of what is shown lies, from the beginning of words: in heights of a line. */
async function fromWords(page: Page, selector: string, words: string): Promise<readonly [number, number]> {
  const box = (await page.locator(selector).first().boundingBox())!;
  const { from } = await placeOf(page, words);
  return [(box.x + box.width / 2 - from.x) / 30, (box.y + box.height / 2 - from.y) / 30];
}
const near = async (page: Page, selector: string, words: string): Promise<boolean> => {
  const [x, y] = await fromWords(page, selector, words);
  return Math.abs(x) < 1.2 && Math.abs(y) < 0.7;
};

test('a teacher shows, one follows on a phone, one looks around and is called back', async ({ browser }) => {
  const { teacher, ines, tomas, begin, close } = await classWithSteps(browser, 'Mud and numbers');
  await tomas.setViewportSize({ width: 390, height: 844 });
  await begin();
  await test.step('who is elsewhere is told, and goes there', async () => {
    for (const page of [ines, tomas]) await page.getByRole('link', { name: 'Follow' }).click();
    for (const page of [ines, tomas]) await expect.poll(() => shownWords(page)).toBe(SENTENCES[0]);
    await expectSeen(teacher.getByText('2 follow'));
    await expect(ines.getByText('Ask who agrees')).toHaveCount(0);
    expect(await beyond(tomas)).toBe(0);
    expect(await violations(teacher, 'all')).toEqual([]);
    expect(await violations(ines, 'all')).toEqual([]);
  });

  await test.step('pointer and ink lie on the same words, at every width', async () => {
    const word = await placeOf(teacher, 'levées');
    await teacher.mouse.move(word.from.x - 30, word.from.y - 20);
    await teacher.mouse.move(word.from.x, word.from.y, { steps: 4 });
    for (const page of [ines, tomas]) await expect.poll(() => near(page, '[data-shown-pointer]', 'levées')).toBe(true);
    await teacher.keyboard.press('d');
    await teacher.mouse.move(word.from.x, word.from.y + 12);
    await teacher.mouse.down();
    await teacher.mouse.move(word.to.x, word.to.y + 12, { steps: 10 });
    await teacher.mouse.up();
    for (const page of [ines, tomas]) {
      await expect(page.locator('[data-shown-ink]')).toHaveCount(1);
      const [x] = await fromWords(page, '[data-shown-ink]', 'levées');
      expect(x).toBeGreaterThan(0);
      expect(x).toBeLessThan(3);
    }
    await teacher.getByRole('button', { name: 'Pointer' }).click();
  });

  await test.step('one looks around by scrolling, and stays there while the teacher goes on', async () => {
    await ines.mouse.move(400, 400);
    await ines.mouse.wheel(0, 2_000);
    await expectSeen(ines.getByText('You look around; your teacher sees where'));
    await expectSeen(follows(teacher, 'Ines').getByText('looks around, at paragraph', { exact: false }));
    await teacher.keyboard.press('ArrowRight');
    await expect.poll(() => shownWords(tomas)).toBe(SENTENCES[1]);
    await expect.poll(() => shownWords(ines)).toBe('out of sight');
    await expect(tomas.locator('[data-shown-ink]')).toHaveCount(0);
    await ines.keyboard.press('f');
    await expect.poll(() => shownWords(ines)).toBe(SENTENCES[1]);
    await ines.mouse.wheel(0, 1_500);
    await expect.poll(() => shownWords(ines)).toBe('out of sight');
    await ines.keyboard.press('r');
    await expectSeen(follows(teacher, 'Ines').getByText('has a question', { exact: false }));
    expect(await violations(teacher, 'all')).toEqual([]);
    await teacher.getByRole('button', { name: 'Call back Ines Test' }).click();
    await expect.poll(() => shownWords(ines)).toBe(SENTENCES[1]);
    await teacher.getByRole('button', { name: 'Seen: the hand of Ines Test' }).click();
    await expectSeen(ines.getByRole('button', { name: 'Raise your hand' }));
  });

  await test.step('where the teacher scrolls, those who follow go', async () => {
    await teacher.mouse.move(600, 400);
    await teacher.mouse.wheel(0, 1_200);
    await expect.poll(() => shownWords(tomas)).toBe('out of sight');
    await expect.poll(() => shownWords(ines)).toBe('out of sight');
    await teacher.keyboard.press('ArrowLeft');
    for (const page of [ines, tomas]) await expect.poll(() => shownWords(page)).toBe(SENTENCES[0]);
  });

  await test.step('screens are blanked, and come back', async () => {
    await teacher.keyboard.press('b');
    await expectSeen(ines.getByText('Aldous Test has covered the page: look up.'));
    await teacher.keyboard.press('b');
    await expect(ines.getByText('has covered the page')).toHaveCount(0);
    await expect.poll(() => shownWords(ines)).toBe(SENTENCES[0]);
  });

  await test.step('one answer is collected from each, and shown', async () => {
    await teacher.getByRole('button', { name: 'Collect one answer from each' }).click();
    await teacher.getByLabel('What do you ask?').fill('How many millimetres?');
    await teacher.getByRole('radio', { name: 'with a number' }).check();
    await teacher.getByLabel('Right number').fill('8');
    await teacher.getByRole('button', { name: 'Ask now' }).click();
    for (const [page, number] of [
      [ines, '8'],
      [tomas, '3'],
    ] as const) {
      const asked = page.getByRole('region', { name: 'Asked now' });
      await expectSeen(asked.getByText('How many millimetres?'));
      await asked.getByRole('spinbutton').fill(number);
      await asked.getByRole('button', { name: 'Answer', exact: true }).click();
    }
    const asked = teacher.getByRole('region', { name: 'Asked now' });
    await expectSeen(asked.getByText('2 of 2 answered · 1 right'));
    await expect(ines.getByText('1 right')).toHaveCount(0);
    await asked.getByRole('button', { name: 'Show the answers' }).click();
    await expectSeen(ines.getByRole('region', { name: 'Asked now' }).getByText('2 of 2 answered · 1 right'));
    await teacher.getByRole('button', { name: 'Collect no more answers' }).click();
    await expect(ines.getByRole('region', { name: 'Asked now' })).toHaveCount(0);
  });

  await test.step('kept ink is an ordinary drawing of the class', async () => {
    const word = await placeOf(teacher, 'levées');
    await teacher.keyboard.press('d');
    await teacher.mouse.move(word.from.x, word.from.y + 12);
    await teacher.mouse.down();
    await teacher.mouse.move(word.to.x, word.to.y + 12, { steps: 10 });
    await teacher.mouse.up();
    await teacher.getByRole('button', { name: 'Keep my ink' }).click();
    await expectSeen(teacher.getByText('1 drawing kept: the class finds it in the text.', { exact: true }));
    for (const page of [teacher, ines, tomas]) {
      await expect(page.locator('[data-shown-ink]')).toHaveCount(0);
      await drawn(page, 'pen');
    }
  });

  await test.step('it ends for all', async () => {
    await teacher.getByRole('button', { name: 'End', exact: true }).click();
    await expectSeen(ines.getByText('Nothing is shown now.', { exact: false }));
    await ines.goto('/library');
    await expect(ines.getByRole('link', { name: 'Follow' })).toHaveCount(0);
  });
  await close();
});

test('a connection that is lost, one that comes late, and one who is removed', async ({ browser }) => {
  const { teacher, ines, tomas, classId, url, begin, close } = await classWithSteps(browser, 'Lost and found');
  /** Cuts and joins the connection of a page, as a lost network does: without a farewell. */
  const cable = async (page: Page) => {
    let cut = false;
    const drop: (() => void)[] = [];
    await page.routeWebSocket(/\/live$/, (socket) => {
      if (cut) return void socket.close({ code: 1013 });
      const server = socket.connectToServer();
      drop.push(() => {
        void server.close({ code: 3000 });
        void socket.close({ code: 3000 });
      });
    });
    return {
      cut: () => {
        cut = true;
        for (const go of drop.splice(0)) go();
      },
      join: () => {
        cut = false;
      },
    };
  };
  const cables = { teacher: await cable(teacher), ines: await cable(ines) };
  await begin();
  await ines.goto(url);
  await expect.poll(() => shownWords(ines)).toBe(SENTENCES[0]);

  await test.step('who follows lost it: the teacher sees that; it comes back at what is shown by then', async () => {
    cables.ines.cut();
    await expectSeen(ines.getByText('Connection lost, trying again…'));
    await expectSeen(follows(teacher, 'Ines').getByText('connection lost', { exact: false }));
    await teacher.keyboard.press('ArrowRight');
    await tomas.goto(url);
    await expect.poll(() => shownWords(tomas)).toBe(SENTENCES[1]);
    cables.ines.join();
    // Within a second as a rule; here six browsers share two cores.
    await expect.poll(() => shownWords(ines), { timeout: 4_000 }).toBe(SENTENCES[1]);
    await expect(ines.getByText('Connection lost')).toHaveCount(0);
  });

  await test.step('who shows lost it: what they do meanwhile comes to all once it is back', async () => {
    cables.teacher.cut();
    await expectSeen(teacher.getByText('Connection lost, trying again…'));
    await teacher.keyboard.press('ArrowLeft');
    await expect.poll(() => shownWords(teacher)).toBe(SENTENCES[0]);
    await expect.poll(() => shownWords(ines)).toBe(SENTENCES[1]);
    cables.teacher.join();
    for (const page of [ines, tomas]) await expect.poll(() => shownWords(page)).toBe(SENTENCES[0]);
  });

  await test.step('somebody else of the class who teaches takes over', async () => {
    const helper = await newcomer(browser, 'Sten');
    await helper.page.goto('/classes');
    await teacher.goto(`/classes/${classId}`);
    const code = (await teacher.getByTitle('Copy').textContent())!.trim();
    await helper.page.getByLabel('Code from your teacher').fill(code);
    await helper.page.getByRole('button', { name: 'Join' }).click();
    await expectSeen(helper.page.getByRole('heading', { name: 'Lost and found' }));
    await teacher.evaluate(async (id) => {
      const c = (await (await fetch(`/api/classes/${id}`)).json()) as { members: { id: string; name: string }[] };
      const { id: person } = c.members.find(({ name }) => name.startsWith('Sten'))!;
      const headers = { 'content-type': 'application/json' };
      const body = JSON.stringify({ role: 'assistant' });
      await fetch(`/api/classes/${id}/members/${person}`, { method: 'PUT', headers, body });
    }, classId);
    await helper.page.goto(url);
    await helper.page.getByRole('button', { name: 'Take over' }).click();
    await expectSeen(ines.getByText('Sten Test shows'));
    await expectSeen(helper.page.getByRole('button', { name: 'Step 2 ›' }));
    await helper.page.keyboard.press('ArrowRight');
    await expect.poll(() => shownWords(ines)).toBe(SENTENCES[1]);
    await helper.close();
  });

  await test.step('who is removed in the middle sees nothing more of it', async () => {
    await teacher.evaluate(async (id) => {
      const c = (await (await fetch(`/api/classes/${id}`)).json()) as { members: { id: string; name: string }[] };
      const { id: person } = c.members.find(({ name }) => name.startsWith('Ines'))!;
      await fetch(`/api/classes/${id}/members/${person}`, { method: 'DELETE' });
    }, classId);
    await expect(ines.locator('iframe[title^="Text of"]')).toHaveCount(0);
  });
  await close();
});
