import { answerText, askedText, type BlockOf } from '../lesson/index.ts';
import { callOrder, callsMs } from './chance.ts';
import { addShowing } from './moves.ts';
import type { TimelineBuilder } from './timeline-builder.ts';
import { speechMs } from './speech.ts';

export function timeGame(timeline: TimelineBuilder, block: BlockOf<'game'>, wpm: number): void {
  const { exercise, tries } = block;
  timeline.add('explain', block.explainMs ?? speechMs(block.script, wpm), {
    own: 'span.explain',
    values: { title: block.title },
  });
  addShowing(timeline, block.demo, exercise);
  for (let round = 1; round <= tries; round += 1) {
    const place = { round, rounds: tries };
    timeline.add('lead-in', block.leadInMs, { own: 'phase.lead-in' }, place);
    const play = { ...place, movement: exercise.movement, up: block.goal === 'target' };
    timeline.work('play', block.playMs, { text: exercise.title }, play);
    timeline.add('score', block.scoreMs, { own: 'span.score' }, place);
    if (round < tries) timeline.add('rest', block.restMs, { own: 'phase.rest' }, place);
  }
}

export function timeCalled(timeline: TimelineBuilder, block: BlockOf<'called'>): void {
  addShowing(timeline, block.demo, { title: block.title });
  timeline.add('lead-in', block.leadInMs, { own: 'phase.lead-in' });
  if (timeline.isMeter) return timeline.add('prompt', callsMs(block), { text: block.title });
  const calls = callOrder(block);
  calls.forEach(({ label: text, gapMs }, i) => {
    const label = { text };
    timeline.call('command', label);
    timeline.add('prompt', gapMs, label, { rep: i + 1, reps: calls.length, movement: 'other' });
  });
  timeline.call('stop', { own: 'call.stop' });
}

export function timeQuestion(
  timeline: TimelineBuilder,
  block: BlockOf<'question'>,
  wpm: number,
): void {
  const answer = answerText(block);
  timeline.add('ask', block.askMs ?? speechMs(askedText(block), wpm), {
    text: block.question || block.title,
  });
  timeline.add('think', block.thinkMs, { own: 'phase.think' });
  timeline.add('answer', block.answerMs ?? speechMs(answer, wpm), { text: answer });
}
