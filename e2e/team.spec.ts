import { expect, test, type Browser, type Page } from '@playwright/test';
import {
  bench,
  discard,
  expectAccessible,
  makeOwner,
  openBrowser,
  openPage,
  saved,
  startLesson,
  startZest,
  type Zest,
  more,
} from './zest.ts';

let zest: Zest;
let browser: Browser;
let page: Page;
let other: Page;
let faults: string[];
let otherFaults: string[];
let lessonId: string;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  zest = await startZest('start');
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  ({ page: other, faults: otherFaults } = await openPage(browser));
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
});
test.afterEach(() => expect([...faults, ...otherFaults]).toEqual([]));

test('the owner invites a teacher, who joins by the link', async () => {
  await makeOwner(page, zest.url);
  lessonId = await startLesson(page, 'Ours');
  await page.getByRole('button', { name: '+ Talk' }).click();
  await page.getByRole('button', { name: '+ Work and rest' }).click();
  await saved(page);
  await page.goto(zest.url);
  await page.getByRole('link', { name: 'Team' }).click();
  await page.getByRole('button', { name: 'Make an invitation' }).click();
  const link = await page.getByLabel(/^Invitation for a teacher/).inputValue();
  await expectAccessible(page);
  await other.goto(link);
  await other.getByLabel('Sign-in name').fill('wren');
  await other.getByLabel('Password').fill('short');
  await other.getByRole('button', { name: 'Join' }).click();
  await expect(other.getByText('at least 10 characters', { exact: false }).first()).toBeVisible();
  await other.getByLabel('Password').fill('a long enough password');
  await expectAccessible(other);
  await other.getByRole('button', { name: 'Join' }).click();
  await expect(other.getByRole('heading', { name: 'Lessons', exact: true })).toBeVisible();
  await expect(other.getByText('Ours')).toBeVisible();
});

test('a password is given anew by the owner’s link, and changed with the old one', async () => {
  await page.reload();
  await page.getByRole('button', { name: 'Link for a new password of wren' }).click();
  const link = await page.getByLabel(/^For wren: a new password/).inputValue();
  await expectAccessible(page);
  await other.goto(link);
  await other.getByLabel('Password').fill('a second long password');
  await expectAccessible(other);
  await other.getByRole('button', { name: 'Set the password' }).click();
  await expect(other.getByRole('heading', { name: 'Lessons', exact: true })).toBeVisible();
  await other.getByRole('link', { name: 'Team' }).click();
  await other.getByLabel('Old password').fill('not it');
  await other.getByLabel('New password').fill('a third long password');
  await other.getByRole('button', { name: 'Change it' }).click();
  await expect(other.getByText('The old password is not right.')).toBeVisible();
  await other.getByLabel('Old password').fill('a second long password');
  await other.getByRole('button', { name: 'Change it' }).click();
  await expect(other.getByText('Changed. Your other devices are signed out.')).toBeVisible();
});

test('a lesson is handed over, and the shelf says who sees to it', async () => {
  await page.goto(zest.url);
  await expect(page.getByText('Assigned to quay-coach')).toBeVisible();
  await page.getByRole('button', { name: 'More for Ours' }).click();
  await page.getByRole('menuitem', { name: 'Hand over …' }).click();
  await expectAccessible(page);
  await page.getByRole('dialog').getByRole('button', { name: 'wren' }).click();
  await expect(page.getByText('Assigned to wren')).toBeVisible();
});

test('two in one lesson see each other, and comment at a moment', async () => {
  await page.goto(`${zest.url}/lessons/${lessonId}/plan`);
  await other.goto(`${zest.url}/lessons/${lessonId}/assemble`);
  await expect(other.getByText('quay-coach is here')).toBeVisible();
  await expect(page.getByText('wren is here')).toBeVisible();
  await other.getByLabel('About this moment').fill('Show the landing once more');
  await other.getByRole('button', { name: 'Comment' }).click();
  await expect(other.getByText('wren: Show the landing once more')).toBeVisible();
  await bench(page, 'Assemble');
  const done = page.getByRole('checkbox', { name: 'Done: Show the landing once more' });
  await done.click();
  await expect(done).toBeChecked();
  await expectAccessible(page);
});

test('a conflict is shown block by block, and both versions are put together', async () => {
  await bench(page, 'Plan');
  await page.route('**/presence', (route) => route.abort());
  await other.goto(`${zest.url}/lessons/${lessonId}/plan`);
  const name = (of: Page) => of.getByLabel('Block', { exact: true });
  /** Opens the second block; its name is in the field before anything is typed into it. */
  const second = async (of: Page) => {
    await of.getByRole('button', { name: /^Work and rest:/ }).click();
    await expect(name(of)).toHaveValue('Work and rest');
  };
  await name(other).first().fill('Hello from wren');
  await second(other);
  await name(other).fill('Skips by wren');
  await expect
    .poll(async () => (await other.request.get(`${zest.url}/api/lessons/${lessonId}`)).text())
    .toContain('Skips by wren');
  // This window does not know of it yet.
  await second(page);
  await name(page).fill('Skips by the owner');
  await page.getByRole('button', { name: 'Compare versions' }).click();
  const dialog = page.getByRole('dialog', { name: /was changed in another window/ });
  await expect(
    dialog.getByRole('list', { name: 'What differs' }).getByRole('listitem'),
  ).toHaveCount(2);
  await expect(dialog).toContainText('Here changed, there changed: choose');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Theirs' }).click();
  await dialog.getByRole('button', { name: 'Put both together' }).click();
  await saved(page);
  await expect(page.getByRole('button', { name: /Hello from wren:/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /Skips by wren:/ })).toBeVisible();
  await more(page, 'History');
  await expect(
    page
      .getByRole('dialog', { name: 'Saved revisions' })
      .getByText(/by wren/)
      .first(),
  ).toBeVisible();
});

test('who did what is told, and somebody taken out is out', async () => {
  await page.goto(`${zest.url}/team`);
  await expect(page.getByText('wren commented', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Take wren out of the team' }).click();
  await page.getByRole('button', { name: 'Take out', exact: true }).click();
  await expect(
    page.getByRole('table', { name: 'Who is in the team' }).getByRole('row'),
  ).toHaveCount(2);
  await other.goto(zest.url);
  await expect(other.getByRole('button', { name: 'Sign in' })).toBeVisible();
});
