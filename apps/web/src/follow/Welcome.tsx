import type { FollowLesson } from '@zest/contract';
import { clockText } from '@zest/core/time';

/** Kit, space and cautions first; then the big start button. */
export function Welcome({ lesson, onStart }: { lesson: FollowLesson; onStart: () => void }) {
  const pausesMs = lesson.assembly.pauses.reduce((sum, pause) => sum + pause.practiceMs, 0);
  return (
    <main className="sheet">
      {lesson.series && <p className="soft">{lesson.series}</p>}
      <h1>{lesson.title}</h1>
      {lesson.outcome && <p>{lesson.outcome}</p>}
      <p>
        {clockText(lesson.assembly.durationMs)} minutes of video
        {pausesMs > 0 && `, ${clockText(lesson.assembly.durationMs + pausesMs)} with your own practice`}
      </p>
      {lesson.kit.length > 0 && (
        <>
          <h2>What you need</h2>
          <ul>
            {lesson.kit.map(({ name, quantity, standIn }) => (
              <li key={name}>
                {quantity > 1 && `${quantity} × `}
                {name}
                {standIn && <span className="soft"> or {standIn}</span>}
              </li>
            ))}
          </ul>
        </>
      )}
      {lesson.cautions.length > 0 && (
        <>
          <h2>Keep safe</h2>
          <ul className="cautions">
            {lesson.cautions.map((caution) => (
              <li key={caution}>{caution}</li>
            ))}
          </ul>
        </>
      )}
      <button type="button" className="big start" onClick={onStart} autoFocus>
        I am ready: start
      </button>
    </main>
  );
}
