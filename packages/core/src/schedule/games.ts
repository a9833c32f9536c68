import type { BlockOf } from '../lesson/index.ts';
import { callOrder, callsMs } from './chance.ts';
import { addShowing } from './moves.ts';
import type { Row } from './row.ts';
import { speechMs } from './speech.ts';

export function timeGame(row: Row, block: BlockOf<'game'>, wpm: number): void {
  const { exercise, tries } = block;
  row.add('explain', block.explainMs ?? speechMs(block.script, wpm), {
    own: 'span.explain',
    values: { title: block.title },
  });
  addShowing(row, block.demo, [exercise], exercise.movement);
  for (let round = 1; round <= tries; round += 1) {
    const place = { round, rounds: tries };
    row.add('lead-in', block.leadInMs, { own: 'phase.lead-in' }, place);
    const play = { ...place, movement: exercise.movement, up: block.goal === 'target' };
    row.work('play', block.playMs, { text: exercise.title }, play);
    row.add('score', block.scoreMs, { own: 'span.score' }, place);
    if (round < tries) row.add('rest', block.restMs, { own: 'phase.rest' }, place);
  }
}

export function timeCalled(row: Row, block: BlockOf<'called'>): void {
  addShowing(row, block.demo, [block]);
  row.add('lead-in', block.leadInMs, { own: 'phase.lead-in' });
  if (row.isMeter) return row.add('prompt', callsMs(block), { text: block.title });
  const calls = callOrder(block);
  calls.forEach(({ label: text, gapMs }, i) => {
    const label = { text };
    row.call('command', label);
    row.add('prompt', gapMs, label, { rep: i + 1, reps: calls.length, movement: 'other' });
  });
  row.call('stop', { own: 'call.stop' });
}

export function timeQuestion(row: Row, block: BlockOf<'question'>, wpm: number): void {
  row.add('ask', block.askMs ?? speechMs(`${block.script} ${block.question}`, wpm), {
    text: block.question || block.title,
  });
  row.add('think', block.thinkMs, { own: 'phase.think' });
  row.add('answer', block.answerMs ?? speechMs(block.answer, wpm), { text: block.answer });
}
