import { answerText, askedText, type BlockOf } from '../lesson/index.ts';
import { callOrder, callsMs, commandMs, trialMs, type Called } from './chance.ts';
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

/** Long enough to answer a call; then one goes on with what is done between the calls. */
const ANSWER_MS = 2_000;

/** A call, what it asks for and the time to the next, with what is done in between. */
function addCall(
  timeline: TimelineBuilder,
  block: BlockOf<'called'>,
  { command, gapMs, isBare }: Called,
  place: { rep: number; reps: number; round?: number; rounds?: number },
): void {
  const { labels, base, leader } = block;
  const one = labels[command];
  if (!one) return;
  const { text, does, amount, sign } = one;
  const label = { text: leader && !isBare ? `${leader.words} ${text}` : text };
  const isDone = does !== 'nothing' && !isBare;
  timeline.call('command', label, timeline.at, sign);
  const askedMs = commandMs(one);
  const answerMs = base ? Math.min(ANSWER_MS, gapMs) : gapMs;
  timeline.add('prompt', askedMs + (amount && base ? 0 : answerMs), label, {
    ...place,
    command,
    movement: isDone ? 'other' : undefined,
  });
  if (base)
    timeline.add(
      'move',
      amount ? gapMs : gapMs - answerMs,
      { text: base.title },
      { ...place, rep: undefined, reps: undefined, exercise: 0, movement: base.movement },
    );
}

export function timeCalled(timeline: TimelineBuilder, block: BlockOf<'called'>): void {
  const { base, trial } = block;
  addShowing(timeline, block.demo, { title: block.title });
  timeline.add('lead-in', block.leadInMs, { own: 'phase.lead-in' });
  if (timeline.isMeter) {
    const again = trial ? trialMs(block) + block.leadInMs : 0;
    return timeline.add('prompt', again + callsMs(block), { text: block.title });
  }
  const order = callOrder(block);
  // The trial is the first round, the game the second.
  const run = (called: readonly Called[], round: 1 | 2) =>
    called.forEach((one, i) =>
      addCall(timeline, block, one, {
        ...{ rep: i + 1, reps: called.length },
        ...(trial && { round, rounds: 2 }),
      }),
    );
  if (base) timeline.call('start', { text: base.title });
  if (trial) {
    run(order.trial, 1);
    timeline.add('lead-in', block.leadInMs, { own: 'span.it-counts' });
  }
  run(order.calls, 2);
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
