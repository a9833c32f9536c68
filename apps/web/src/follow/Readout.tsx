import { useEffect, useRef } from 'react';
import {
  paintItemAt,
  phaseWords,
  type CounterItem,
  type Scene,
  type SceneItem,
} from '@zest/core/overlay';
import { lessonWord } from '@zest/core/words';
import { say } from './words/index.ts';

function find<S extends Scene['items'][number]['slot']>(scene: Scene, slot: S) {
  return scene.items.find(
    (item): item is Extract<Scene['items'][number], { slot: S }> => item.slot === slot,
  );
}

/**
 * What a screen reader says when something begins; it stays the same while it runs, so it is said
 * once.
 */
export function announcement(scene: Scene, language: string): string {
  const of = ({ rep, reps }: CounterItem) => say('lesson.of', { at: rep, all: reps });
  const clock = find(scene, 'clock');
  const counter = find(scene, 'counter');
  const cue = find(scene, 'cue');
  // Commands and questions are what the student answers: nothing else is as urgent.
  if (cue?.moment === 'command') return `${cue.text}. ${counter ? of(counter) : ''}`;
  if (cue?.moment === 'question') return `${cue.text}`;
  // What is called out in between would interrupt.
  if (clock)
    return `${lessonWord(language, phaseWords[clock.phase])}: ${clock.title}. ${clock.next}`;
  if (counter && (counter.rep === 1 || counter.rep === counter.reps))
    return `${of(counter)}${counter.side ? `, ${say(`number.${counter.side}`)}` : ''}`;
  return scene.card ? `${scene.card.heading}. ${scene.card.lines.join('. ')}` : '';
}

function Count({ counter }: { counter: CounterItem }) {
  return (
    <p>
      <span className="digits">{counter.shown}</span> {counter.tail}
      {counter.side && <span className="side">{say(`number.${counter.side}`)}</span>}
    </p>
  );
}

/** Pixels a layout unit: sharp on a phone. */
const SIGN_SCALE = 1.5;

/** A command's sign as it is on the picture, larger: its words would tell what it means. */
function SignPicture({
  item,
  look,
}: {
  item: Extract<SceneItem, { slot: 'cue' }>;
  look: Scene['look'];
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { x, y, width, height } = item.box;
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx) return;
    ctx.clearRect(0, 0, width * SIGN_SCALE, height * SIGN_SCALE);
    paintItemAt(ctx, item, look, {
      ...{ left: x * SIGN_SCALE, top: y * SIGN_SCALE, scale: SIGN_SCALE },
    });
  }, [item, look, x, y, width, height]);
  return <canvas ref={canvas} width={width * SIGN_SCALE} height={height * SIGN_SCALE} />;
}

/**
 * Clock, count and cue in letters as large as the screen allows: on an upright phone the picture is
 * small.
 */
export function Readout({ scene }: { scene: Scene | null }) {
  if (!scene) return null;
  const clock = find(scene, 'clock');
  const counter = find(scene, 'counter');
  const cue = find(scene, 'cue');
  return (
    <div className="readout" aria-hidden="true">
      {clock && (
        <>
          <p className={`phase ${clock.phase}`}>{clock.word}</p>
          <p className="digits">{clock.digits}</p>
          {clock.title !== clock.word && (
            <p className="what" dir="auto">
              {clock.title}
            </p>
          )}
          <p className="soft">{clock.next}</p>
        </>
      )}
      {counter && <Count counter={counter} />}
      {cue?.sign && <SignPicture item={cue} look={scene.look} />}
      {cue && !cue.sign && (
        <p className="cue" dir="auto">
          {cue.text}
        </p>
      )}
    </div>
  );
}
