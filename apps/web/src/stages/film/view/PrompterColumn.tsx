import { Box } from '@mui/material';
import type { PrompterLine } from '@zest/core/script';
import { teacherText } from '@zest/core/words';

const keyWord = {
  fontSize: 'clamp(1.8rem, 3vw, 3rem)',
  fontWeight: 750,
  lineHeight: 1.15,
  color: '#ffb454',
  px: 1.25,
  py: 0.25,
  border: '2px solid #ffb454',
  borderRadius: 1,
};

type SaidLine = PrompterLine & { kind: Exclude<PrompterLine['kind'], 'cue'> };
const isSaid = (line: PrompterLine): line is SaidLine => line.kind !== 'cue';

const looks: Record<SaidLine['kind'], object> = {
  // The film view's head line says it already.
  title: { display: 'none' },
  plan: { fontSize: 'clamp(1.5rem, 3vw, 2.6rem)', color: '#8fd6c9', fontWeight: 650 },
  said: { fontSize: 'clamp(2.2rem, 4.4vw, 4.2rem)', lineHeight: 1.2 },
  count: { fontSize: 'clamp(2.2rem, 4.4vw, 4.2rem)', color: '#8fd6c9', lineHeight: 1.2 },
  next: { fontSize: '1.7rem', color: '#dccdb9', mt: 2 },
};

/**
 * Lines said one after the other as one text: the column is narrower than a prompter's screen and
 * breaks them itself.
 */
function flowing(lines: readonly PrompterLine[]): SaidLine[] {
  const flow: SaidLine[] = [];
  for (const line of lines) {
    if (!isSaid(line)) continue;
    const last = flow.at(-1);
    if (last && last.kind === line.kind && (line.kind === 'said' || line.kind === 'count'))
      flow[flow.length - 1] = { ...last, text: `${last.text} ${line.text}` };
    else flow.push(line);
  }
  return flow;
}

/** The words of the block, to be read from three metres away: key words above, what is said below. */
export function PrompterColumn({ lines }: { lines: readonly PrompterLine[] }) {
  const keyWords = [...new Set(lines.filter(({ kind }) => kind === 'cue').map(({ text }) => text))];
  const said = flowing(lines);
  return (
    <Box
      role="region"
      aria-label={teacherText('common.prompter')}
      sx={{ display: 'flex', flexDirection: 'column', gap: 1.5, minHeight: 0 }}
    >
      {keyWords.length > 0 && (
        <Box
          component="ul"
          aria-label={teacherText('prompter.key-words')}
          sx={{
            ...{ display: 'flex', flexWrap: 'wrap', gap: 1, flex: 'none' },
            ...{ p: 0, m: 0, listStyle: 'none', maxHeight: '32%', overflow: 'hidden' },
          }}
        >
          {keyWords.map((text) => (
            <Box component="li" key={text} dir="auto" sx={keyWord}>
              {text}
            </Box>
          ))}
        </Box>
      )}
      <Box tabIndex={0} sx={{ overflowY: 'auto', minHeight: 0, pr: 1 }}>
        {said.map(({ kind, text }, i) => (
          <Box key={i} dir="auto" sx={looks[kind]}>
            {text}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
