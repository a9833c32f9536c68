import { Box, Button, Stack, Typography } from '@mui/material';
import type { Block, Side } from '@zest/core/lesson';
import { fixedSides, piecesOf, readForHand, rewriteScript, termPieces } from '@zest/core/script';
import { teacherText } from '@zest/core/words';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { useChange } from '../../ui/use-change.ts';

/** A text with its terms explained where the pointer or a screen reader comes to them. */
function TermText({ text }: { text: string }) {
  const { glossary } = useOpenLesson().lesson;
  return termPieces(text, glossary).map(({ text: piece, term }, i) =>
    term ? (
      <abbr key={i} title={term.plain || teacherText('script.not-explained-yet')} className="term">
        {piece}
      </abbr>
    ) : (
      <span key={i}>{piece}</span>
    ),
  );
}

/** A text as it is meant for a student of that hand. */
function HandText({ text, hand }: { text: string; hand: Side }) {
  return readForHand(text, hand).map((piece, i) =>
    piece.side ? (
      <span key={i} className="side-word">
        {teacherText('script.your-side', { text: piece.text, side: piece.side })}
      </span>
    ) : (
      <TermText key={i} text={piece.text} />
    ),
  );
}

/** The words of a block with its cues where they are spoken, read for one hand. */
export function Reading({ block, hand }: { block: Block; hand: Side }) {
  const words = new Map(block.cues.map(({ id, text }) => [id, text]));
  const pieces = piecesOf(block.script, block.cues);
  const asked =
    block.kind === 'question' ? [block.question, block.answer].filter((text) => text !== '') : [];
  if (pieces.length === 0 && asked.length === 0)
    return <Typography color="text.secondary">{teacherText('script.nothing-said-yet')}</Typography>;
  return (
    <Box
      sx={{
        whiteSpace: 'pre-wrap',
        unicodeBidi: 'plaintext',
        textAlign: 'start',
        lineHeight: 1.55,
        overflowWrap: 'anywhere',
      }}
    >
      {pieces.map((piece, i) =>
        piece.kind === 'cue' ? (
          <span key={i} className="cue-tag">
            <HandText text={words.get(piece.cueId) ?? ''} hand={hand} />
          </span>
        ) : (
          <HandText key={i} text={piece.text} hand={hand} />
        ),
      )}
      {asked.map((text) => (
        <div key={text}>
          <HandText text={text} hand={hand} />
        </div>
      ))}
    </Box>
  );
}

/**
 * Sides of the body that are wrong for half the students, with a wording that suits both where one
 * is sure.
 */
export function FixedSides({ block }: { block: Block }) {
  const change = useChange(block);
  const places = [
    { name: teacherText('script.what-you-say'), text: block.script, set: rewriteScript },
    ...block.cues.map((cue, i) => ({
      name: teacherText('script.cue', { text: cue.text }),
      text: cue.text,
      set: (d: Block, text: string) => void (d.cues[i] && (d.cues[i].text = text)),
    })),
  ];
  const found = places.flatMap((place) =>
    fixedSides(place.text).map((side) => ({ ...place, ...side })),
  );
  if (found.length === 0) return null;
  return (
    <Stack spacing={0.5}>
      {found.map(({ name, text, set, at, words, instead }) => (
        <Stack
          key={`${name} ${at}`}
          direction="row"
          useFlexGap
          sx={{ alignItems: 'center', flexWrap: 'wrap', columnGap: 1 }}
        >
          <Typography variant="body2">
            {teacherText(instead ? 'script.one-hand-only' : 'script.one-hand-only-say', {
              name,
              words,
            })}
          </Typography>
          {instead && (
            <Button
              size="small"
              onClick={() =>
                change(
                  teacherText('script.wording'),
                  (d) => set(d, text.slice(0, at) + instead + text.slice(at + words.length)),
                  false,
                )
              }
            >
              {teacherText('script.write', { instead })}
            </Button>
          )}
        </Stack>
      ))}
    </Stack>
  );
}
