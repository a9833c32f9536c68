import { figureOf, figuresOf, type Block } from '@zest/core/lesson';
import { teacherText, type Figures, type TeacherWord } from '@zest/core/words';
import { Fragment, type ReactNode } from 'react';
import { FieldLook } from '../../../ui/field-look.ts';
import { FigureField } from './FigureFields.tsx';

/** A part of a block's sentence: its words, and what stands in their places. */
export interface Clause {
  word: TeacherWord;
  /** Numbers the words go by: one round, two rounds. */
  by?: Figures;
  /** A figure of the block by its key, or a field. */
  slots: Record<string, string | ReactNode>;
}

/** A figure named by its key; a clause with one the block does not have as it stands is left out. */
const isKey = (slot: string | ReactNode): slot is string => typeof slot === 'string';

/** Stands in the words where a slot goes; no word contains it. */
const EDGE = '\u0001';

function Words({ block, clause }: { block: Block; clause: Clause }) {
  const { word, by, slots } = clause;
  const places = Object.fromEntries(
    Object.keys(slots).map((name) => [name, `${EDGE}${name}${EDGE}`]),
  );
  const parts = teacherText(word, { ...by, ...places }).split(EDGE);
  // Every second part is the name of a slot.
  return parts.map((part, i) => {
    if (i % 2 === 0) return part;
    const slot = slots[part];
    return (
      <Fragment key={part}>
        {isKey(slot) ? <FigureField block={block} figureKey={slot} /> : slot}
      </Fragment>
    );
  });
}

/** Figures of lists and of what a block has besides stand with these. */
const ELSEWHERE = /\d|^demo|^parts|^pauseAfter|^floor|^combination/;

/** The block in a sentence, its figures changed where they stand. */
export function Sentence({ block, clauses }: { block: Block; clauses: readonly Clause[] }) {
  const shown = clauses.filter(({ slots }) =>
    Object.values(slots).every((slot) =>
      isKey(slot) ? figureOf(block, slot) !== undefined : slot !== null,
    ),
  );
  const said = new Set(shown.flatMap(({ slots }) => Object.values(slots).filter(isKey)));
  const left = figuresOf(block).filter(({ key }) => !said.has(key) && !ELSEWHERE.test(key));
  return (
    <div className="block-sentence">
      <FieldLook value="bare">
        {shown.map((clause, i) => (
          <span key={clause.word} className="block-clause">
            {i > 0 && ' '}
            <Words block={block} clause={clause} />
          </span>
        ))}
      </FieldLook>
      {left.map(({ key }) => (
        <FigureField key={key} block={block} figureKey={key} />
      ))}
    </div>
  );
}
