import { expect, test, type Browser, type Page } from '@playwright/test';
import { addTo, addKind, discard, openAsOwner, saved, startLesson, type Zest } from './zest.ts';

// Lessons as teachers give them, entered as they would; each length is worked out by hand.

let zest: Zest;
let browser: Browser;
let page: Page;
let faults: string[];

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  ({ zest, browser, page, faults } = await openAsOwner());
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
});
test.afterEach(() => expect(faults).toEqual([]));

const field = (label: string, at = 0) => page.getByLabel(label, { exact: true }).nth(at);
const video = () => page.getByTestId('video-clock');
const student = () => page.getByTestId('student-clock');

async function choose(label: string, option: string, at = 0): Promise<void> {
  await field(label, at).click();
  await page.getByRole('option', { name: option, exact: true }).click();
}

/** A lesson of one block of the kind. */
async function startWith(title: string, kind: string): Promise<void> {
  await page.goto(zest.url);
  await startLesson(page, title);
  await addKind(page, kind);
}

test('a circuit of repetitions twice through, rests until one is ready, key words of its own', async () => {
  await startWith('Circuit', 'Work and rest');
  await field('Exercise 1').fill('Squats');
  await choose('Done by', 'repetitions');
  await field('Repetitions of Squats').fill('10');
  await field('One repetition of Squats').fill('2 s');
  await page.getByRole('button', { name: '+ Exercise' }).click();
  await field('Exercise 2').fill('Plank');
  await choose('Done by', 'a hold', 1);
  await field('Hold of Plank').fill('20 s');
  await field('Rounds').fill('2');
  await field('Lead-in').fill('0 s');
  await field('Rest').fill('30 s');
  // Twice 10 × 2 s and 20 s, three rests of 30 s.
  await expect(video()).toHaveText('2:50');
  await addTo(page, 'What rests are like');
  await choose('Rests last', 'until the student is ready');
  // Each rest takes 3 s of sign and 3 s of counting in: 80 + 3 × 6 s; for the student as before.
  await expect(video()).toHaveText('1:38');
  await expect(student()).toHaveText('2:50');
  await page.getByRole('button', { name: 'Details of Plank' }).click();
  const details = page.getByRole('group', { name: 'Details of Plank' });
  await details.getByRole('button', { name: '+ Cue' }).click();
  await details.getByLabel('Cue 1', { exact: true }).fill('Long back');
  await saved(page);
  await page.reload();
  await expect(video()).toHaveText('1:38');
  await expect(page.getByRole('button', { name: 'Details of Plank' })).toHaveText('Details (1)');
});

test('a move is taught in parts on both sides, joined step by step, with rests of several kinds', async () => {
  await startWith('Parts', 'Repetitions');
  await choose('Sides', 'both sides together');
  await field('Repetitions').fill('10');
  await field('Lead-in').fill('0 s');
  // Ten times a second down and one up.
  await expect(video()).toHaveText('0:20');
  await addTo(page, 'Taught in parts');
  await field('Times each part').fill('2');
  await field('One part').fill('3 s');
  await field('Times joined').fill('1');
  await field('Joined, slowly').fill('6 s');
  // Three parts twice, 18 s, joined once 6 s.
  await expect(video()).toHaveText('0:44');
  await choose('Sides of the parts', 'one side, then the other');
  // Both sides of parts and joining: 2 × 24 s.
  await expect(video()).toHaveText('1:08');
  await choose('Joined', 'step by step');
  // After the second part two of three parts, 4 s, on each side.
  await expect(video()).toHaveText('1:16');
  await saved(page);
  await startWith('Rests', 'Work and rest');
  await field('Lead-in').fill('0 s');
  await field('Work').fill('30 s');
  await field('Rounds').fill('3');
  await addTo(page, 'What rests are like');
  await choose('Rests last', 'as long as the work took');
  // Three works and two rests of 30 s.
  await expect(video()).toHaveText('2:30');
  await choose('Meanwhile', 'the partner works');
  await choose('Rests last', 'so many breaths');
  await field('Breaths of rest').fill('4');
  await field('Breathe in').fill('3 s');
  await field('Breathe out').fill('4 s');
  // Three works and two rests of four breaths of 7 s.
  await expect(video()).toHaveText('2:26');
  await saved(page);
  await page.reload();
  await expect(field('Breaths of rest')).toHaveValue('4');
});

test('counts of five and three, and a routine that grows from what is known, at the student’s pace', async () => {
  await startWith('Steps', 'Counts of 8');
  await field('Move 1').fill('March');
  await field('Beats a minute').fill('120');
  await field('Times through').fill('2');
  await field('Eights counted in').fill('0');
  await field('Beats').fill('5 3');
  await field('Beats').blur();
  await expect(field('Beats')).toHaveValue('5 + 3');
  // Twice through, each twice five and three beats of half a second.
  await expect(video()).toHaveText('0:16');
  await saved(page);
  await startWith('Growing', 'Routine');
  await field('Lead-in').fill('0 s');
  await field('Break between').fill('20 s');
  // A, A B, A B C and the whole: nine moves of 4 s, three breaks.
  await expect(video()).toHaveText('1:36');
  await choose('Rests last', 'until the student is ready');
  await expect(video()).toHaveText('0:54');
  await expect(student()).toHaveText('1:36');
  await saved(page);
});

test('a question with choices is answered by a move; what is right is told with the answer', async () => {
  await startWith('Quiz', 'Question');
  await field('Question').fill('Which foot leads?');
  await addTo(page, 'Answers to choose from');
  await field('Choice A').fill('Left');
  await field('Choice B').fill('Right');
  await choose('Drawn move', 'squat');
  await field('Why').fill('It is across');
  await page.getByLabel('Answer with the move').check();
  // Three words and two choices with their letters, 7 words: 4 s at 130 a minute; 8 s to think;
  // "A Left. It is across", 5 words: 3 s.
  await expect(video()).toHaveText('0:15');
  await saved(page);
  await page.getByRole('button', { name: 'Remove Right' }).click();
  // One alone is no choice.
  await expect(field('Choice A')).toHaveCount(0);
  await page.keyboard.press('Control+Z');
  await expect(field('Choice B')).toHaveValue('Right');
  await saved(page);
});

test('a called-out game has a move between, a try first, a leader and lives', async () => {
  await startWith('Ship ahoy', 'Called-out game');
  await field('Calls').fill('6');
  await field('Lead-in').fill('3 s');
  // Six gaps of 3 s in the middle.
  await expect(video()).toHaveText('0:21');
  await choose('Done by', 'repetitions');
  await field('Repetitions of North').fill('3');
  await field('One repetition of North').fill('1 s');
  // Two of six calls are North: 2 × 3 s more.
  await expect(video()).toHaveText('0:27');
  await addTo(page, 'Rules of the game');
  await choose('Between the calls', 'do a move');
  await field('Move between').fill('Run on the spot');
  await page.getByRole('button', { name: 'Try it first' }).click();
  // Three calls to try, 3 gaps of 3 s and 3 s of North, and ready again: 15 s more.
  await expect(video()).toHaveText('0:42');
  await choose('Score', 'lives');
  await choose('Called by', 'a colour', 1);
  await page.getByRole('button', { name: 'Only on the leader’s words' }).click();
  await expect(field('Leader’s words')).toHaveValue('Captain says');
  await saved(page);
  await page.reload();
  await expect(video()).toHaveText('0:42');
  await page.getByRole('button', { name: 'Rules of the game: lives' }).click();
  await expect(field('Lives')).toHaveValue('3');
});

test('a series grows by a step, and every fourth week is lighter', async () => {
  await page.goto(`${zest.url}/series`);
  await field('Name of a new series').fill('Quay winter');
  await page.getByRole('button', { name: 'Plan a series' }).click();
  await page.waitForURL(/\/series\//);
  await field('Weeks').fill('5');
  await page.getByRole('button', { name: '+ What grows' }).click();
  await choose('What', 'Repetitions');
  await field('One after another').fill('10');
  await choose('Then', 'on by a step');
  await field('Step').fill('2');
  await choose('Lighter weeks', 'now and then');
  await field('Per cent of it').fill('50');
  await field('Why').fill('Two more each week');
  const row = page.getByRole('row', { name: /^Repetitions Two more each week/ });
  // 10, 12, 14, half of 14, and on from 14.
  await expect(field('Repetitions, week 3')).toHaveValue('14');
  await expect(row.getByRole('cell').nth(3)).toHaveText('7');
  await expect(row.getByTitle('lighter week')).toHaveText('7');
  await expect(field('Repetitions, week 5')).toHaveValue('16');
  await saved(page);
  await page.reload();
  await expect(row.getByRole('cell').nth(3)).toHaveText('7');
});

test('a combination is done on one side, then the other, shown slowly once and scored by side', async () => {
  await startWith('Throw combination', 'Routine');
  await field('Lead-in').fill('5 s');
  await choose('Grows', 'no, the whole at once');
  await field('Times through').fill('3');
  await field('Break between').fill('2 s');
  // 5 s, three times 3 × 4 s, two breaks of 2 s.
  await expect(video()).toHaveText('0:45');
  await addTo(page, 'Combination');
  await field('No.').fill('1');
  await field('No.', 1).fill('2');
  await field('Side change').fill('6 s');
  await field('Noting the score').fill('5 s');
  // Half speed once: 24 s. 5 + 24 s, then twice 40 + 5 s, and 6 s between.
  await expect(video()).toHaveText('2:05');
  await field('Moves this time').fill('2');
  // Two moves: 16 s slowly, three times 8 s and 4 s of breaks a side: 5 + 16 + 2 × 33 + 6 s.
  await expect(video()).toHaveText('1:33');
  await saved(page);
  await page.reload();
  await expect(video()).toHaveText('1:33');
  await expect(field('No.', 1)).toHaveValue('2');
});

test('a game has rules, a field and a distance for each number of players', async () => {
  await startWith('Pass it on', 'Game');
  await addTo(page, 'Who plays');
  await page.getByRole('button', { name: '+ Number of players' }).click();
  await field('Rules').fill('Pass ten times without a miss.');
  await field('Apart').fill('4 m');
  await field('Field').fill('3 x 6');
  await field('Field').blur();
  await expect(field('Field')).toHaveValue('3 m × 6 m');
  await choose('Change places', 'after each miss');
  await page.getByRole('button', { name: '+ Number of players' }).click();
  await field('What one does alone').fill('Throw at a bottle.');
  await field('To the target').fill('five');
  await expect(page.getByText('Write one distance: 3 m.')).toBeVisible();
  await field('To the target').fill('2.5');
  await choose('Company', 'with a partner');
  await saved(page);
  // The floor of each: 3 m × 6 m for two, whose middle lies between them; nothing for one.
  await page.getByRole('button', { name: /^Space / }).click();
  await expect(page.getByText('6 m deep, because of “Game”')).toBeVisible();
  await choose('Players', 'Alone');
  await saved(page);
  await page.reload();
  await expect(page.getByRole('button', { name: /^Space/ })).toContainText('3 m × 6 m');
});

test('kit adds up by its words, effort is an estimate for the ages, and under six nobody reads', async () => {
  await startWith('Kit', 'Card');
  await addTo(page, 'Kit');
  await field('What').fill('Balls');
  await field('How many').fill('2');
  await page.getByRole('button', { name: '+ Kit' }).click();
  await field('What', 1).fill('ball');
  await choose('For', 'the group', 1);
  await page.getByRole('button', { name: '+ Kit' }).click();
  await field('What', 2).fill('balloon');
  await page.getByRole('button', { name: /^Kit / }).click();
  await expect(page.getByText('Balls: 2 each, and 1 for the group', { exact: true })).toBeVisible();
  await expect(page.getByRole('paragraph').filter({ hasText: /^balloon$/ })).toBeVisible();
  await page.getByRole('button', { name: /^Effort / }).click();
  // 8 years: 26 kg; 11 years: halfway from 32 to 41 kg.
  await expect(page.getByText(/MET-minutes: at 8 to 11 years, 26 to 37 kg/)).toBeVisible();
  await page.getByRole('button', { name: 'Close Effort' }).click();
  await page.getByRole('button', { name: 'About this lesson' }).click();
  await field('Age from').fill('4');
  await expect(page.getByText('Children under 6 do not read yet.')).toBeVisible();
  await saved(page);
});
