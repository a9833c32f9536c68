import { Box } from '@mui/material';
import type { PrompterLine } from '@zest/core/script';

const looks: Record<PrompterLine['kind'], object> = {
  // The film view's head line says it already.
  title: { display: 'none' },
  plan: { fontSize: 'clamp(1.5rem, 3vw, 2.6rem)', color: '#8fd6c9', fontWeight: 650 },
  said: { fontSize: 'clamp(2.2rem, 4.4vw, 4.2rem)', lineHeight: 1.2 },
  cue: {
    fontSize: 'clamp(2.4rem, 4.8vw, 4.6rem)',
    fontWeight: 750,
    color: '#ffb454',
    lineHeight: 1.2,
  },
  count: { fontSize: 'clamp(2.2rem, 4.4vw, 4.2rem)', color: '#8fd6c9', lineHeight: 1.2 },
  next: { fontSize: '1.7rem', color: '#dccdb9', mt: 2 },
};

/**
 * Lines said one after the other as one text: the column is narrower than a prompter's screen and
 * breaks them itself.
 */
function flowing(lines: readonly PrompterLine[]): PrompterLine[] {
  const flow: PrompterLine[] = [];
  for (const line of lines) {
    const last = flow.at(-1);
    if (last && last.kind === line.kind && (line.kind === 'said' || line.kind === 'count'))
      flow[flow.length - 1] = { ...last, text: `${last.text} ${line.text}` };
    else flow.push(line);
  }
  return flow;
}

/** The words of the block, to be read from three metres away. */
export function PrompterColumn({ lines }: { lines: readonly PrompterLine[] }) {
  return (
    <Box
      role="region"
      aria-label="Prompter"
      tabIndex={0}
      sx={{ overflowY: 'auto', minHeight: 0, pr: 1 }}
    >
      {flowing(lines).map(({ kind, text }, i) => (
        <Box key={i} dir="auto" sx={looks[kind]}>
          {text}
        </Box>
      ))}
    </Box>
  );
}
