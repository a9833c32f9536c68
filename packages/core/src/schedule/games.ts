import {
  answerText,
  askedText,
  questionOf,
  filmedWay,
  type BlockOf,
  type Command,
  type Exercise,
  type Lesson,
} from '../lesson/index.ts';
import type { Label } from '../words/index.ts';
import { callOrder, callsMs, commandMs, trialMs, type Called } from './chance.ts';
import { addShowing } from './moves.ts';
import type { TimelineBuilder } from './timeline-builder.ts';
import { speechMs } from './speech.ts';

export function timeGame(
  timeline: TimelineBuilder,
  block: BlockOf<'game'>,
  lesson: Pick<Lesson, 'settings' | 'audience'>,
): void {
  const { exercise, tries } = block;
  const wpm = lesson.settings.speechWpm;
  const rotate = filmedWay(block, lesson)?.rotate;
  timeline.add('explain', block.explainMs ?? speechMs(block.script, wpm), {
    own: 'span.explain',
    values: { title: block.title },
  });
  addShowing(timeline, block.demo, exercise);
  for (let round = 1; round <= tries; round += 1) {
    const place = { round, rounds: tries };
    timeline.add('lead-in', block.leadInMs, { own: 'phase.lead-in' }, place);
    const play = { ...place, movement: exercise.movement, up: block.goal === 'target' };
    const startMs = timeline.at;
    timeline.work('play', block.playMs, { text: exercise.title }, play);
    if (rotate?.by === 'time')
      for (let ms = rotate.everyMs; ms < block.playMs; ms += rotate.everyMs)
        timeline.call('rotate', { own: 'call.rotate' }, startMs + ms);
    timeline.add('score', block.scoreMs, { own: 'span.score' }, place);
    if (round < tries) timeline.add('rest', block.restMs, { own: 'phase.rest' }, place);
  }
  if (rotate?.by === 'time') timeline.calls.sort((a, b) => a.atMs - b.atMs);
}

/** Long enough to answer a call; then one goes on with what is done between the calls. */
const ANSWER_MS = 2_000;

/** A command as it is called, with the leader's words or bare. */
interface Spoken extends Command {
  label: Label;
  bare: Label;
}

/** A call, what it asks for and the time to the next, with what is done in between. */
function addCall(
  timeline: TimelineBuilder,
  base: Exercise | undefined,
  commands: readonly Spoken[],
  { command, gapMs, isBare }: Called,
  // Written out, not in an object each: a long game has many calls.
  rep: number,
  reps: number,
  round: number | undefined,
): void {
  const one = commands[command];
  if (!one) return;
  const label = isBare ? one.bare : one.label;
  timeline.call('command', label, timeline.at, one.sign);
  const answerMs = base ? Math.min(ANSWER_MS, gapMs) : gapMs;
  const rounds = round === undefined ? undefined : 2;
  timeline.add('prompt', commandMs(one) + (one.amount && base ? 0 : answerMs), label, {
    rep,
    reps,
    round,
    rounds,
    command,
    movement: one.does === 'nothing' || isBare ? undefined : 'other',
  });
  if (base)
    timeline.add(
      'move',
      one.amount ? gapMs : gapMs - answerMs,
      { text: base.title },
      { round, rounds, exercise: 0, movement: base.movement },
    );
}

export function timeCalled(timeline: TimelineBuilder, block: BlockOf<'called'>): void {
  const { base, trial, leader } = block;
  addShowing(timeline, block.demo, { title: block.title });
  timeline.add('lead-in', block.leadInMs, { own: 'phase.lead-in' });
  if (timeline.isMeter) {
    const again = trial ? trialMs(block) + block.leadInMs : 0;
    return timeline.add('prompt', again + callsMs(block), { text: block.title });
  }
  const order = callOrder(block);
  const commands = block.labels.map((one): Spoken => ({
    ...one,
    label: { text: leader ? `${leader.words} ${one.text}` : one.text },
    bare: { text: one.text },
  }));
  // The trial is the first round, the game the second.
  const run = (called: readonly Called[], round: 1 | 2) =>
    called.forEach((one, i) =>
      addCall(timeline, base, commands, one, i + 1, called.length, trial ? round : undefined),
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
    text: questionOf(block),
  });
  timeline.add('think', block.thinkMs, { own: 'phase.think' });
  timeline.add('answer', block.answerMs ?? speechMs(answer, wpm), { text: answer });
}
