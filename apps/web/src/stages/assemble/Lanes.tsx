import { Box, Tooltip, Typography } from '@mui/material';
import type { Assembly } from '@zest/core/assembly';
import type { TimeSpan } from '@zest/core/time';
import { lengthText } from '@zest/core/time';
import { memo, useMemo } from 'react';

interface LaneItem extends TimeSpan {
  text: string;
  tone: 'plain' | 'warm' | 'cool' | 'pale';
}

const tones = {
  plain: { bgcolor: '#e9dcc6', color: '#2a2016' },
  warm: { bgcolor: '#f0c48a', color: '#2a2016' },
  cool: { bgcolor: '#bfe0db', color: '#16332f' },
  pale: { bgcolor: '#fff', color: '#2a2016' },
} as const;

/** Repetitions of one side run together: a lane shows stretches, not every beat. */
function joined(items: LaneItem[]): LaneItem[] {
  const rows: LaneItem[] = [];
  for (const item of items) {
    const last = rows.at(-1);
    if (last && last.text === item.text && last.endMs === item.startMs) last.endMs = item.endMs;
    else rows.push({ ...item });
  }
  return rows;
}

function lanesOf(assembly: Assembly): [string, LaneItem[]][] {
  const { lanes } = assembly;
  const rows: [string, LaneItem[]][] = [
    ['Picture', assembly.segments.map((s) => ({ ...s, text: s.source.kind === 'card' ? `Card: ${s.source.card.heading}` : 'Take', tone: s.source.kind === 'card' ? 'plain' : 'cool' }))],
    ['Clock', lanes.clock.map((c) => ({ ...c, text: c.title, tone: c.phase === 'work' ? 'warm' : 'pale' }))],
    ['Count', joined(lanes.counter.map((c) => ({ ...c, text: `${c.reps}${c.side ? ` ${c.side}` : ''}`, tone: 'warm' as const })))],
    ['Cue', lanes.cue.map((c) => ({ ...c, text: c.text, tone: 'pale' }))],
    ['Caution', lanes.caution.map((c) => ({ ...c, text: c.text, tone: 'warm' }))],
    ['Captions', assembly.captions.map((c) => ({ ...c, text: c.lines.join(' '), tone: 'plain' }))],
    ['Pause', assembly.pauses.map((p) => ({ ...p, text: `then ${lengthText(p.practiceMs)}`, tone: 'cool' }))],
  ];
  return rows.filter(([, items]) => items.length > 0);
}

const LaneRow = memo(function LaneRow({ name, items, totalMs, onSeek }: { name: string; items: LaneItem[]; totalMs: number; onSeek: (ms: number) => void }) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '84px 1fr', alignItems: 'center' }}>
      <Typography variant="body2" color="text.secondary">
        {name}
      </Typography>
      <Box sx={{ position: 'relative', height: 26, borderBottom: 1, borderColor: 'divider' }}>
        {items.map((item) => (
          <Tooltip key={item.startMs} title={`${item.text}, ${lengthText(item.endMs - item.startMs)}`}>
            <Box
              component="button"
              type="button"
              onClick={() => onSeek(item.startMs)}
              sx={{
                position: 'absolute',
                top: 1,
                height: 24,
                left: `${(item.startMs / totalMs) * 100}%`,
                width: `calc(${((item.endMs - item.startMs) / totalMs) * 100}% - 1px)`,
                border: '1px solid #b7a283',
                borderRadius: '3px',
                overflow: 'hidden',
                whiteSpace: 'nowrap',
                textOverflow: 'ellipsis',
                fontSize: 12.5,
                px: 0.5,
                textAlign: 'left',
                fontFamily: 'inherit',
                cursor: 'pointer',
                minWidth: 3,
                ...tones[item.tone],
              }}
            >
              {item.text}
            </Box>
          </Tooltip>
        ))}
      </Box>
    </Box>
  );
});

/** What is on screen when, one lane for each purpose the lesson uses. A click goes to its start. */
export function Lanes({ assembly, atMs, onSeek }: { assembly: Assembly; atMs: number; onSeek: (ms: number) => void }) {
  const rows = useMemo(() => lanesOf(assembly), [assembly]);
  return (
    <Box sx={{ position: 'relative' }} role="group" aria-label="Lanes">
      {rows.map(([name, items]) => (
        <LaneRow key={name} name={name} items={items} totalMs={assembly.durationMs} onSeek={onSeek} />
      ))}
      <Box
        sx={{
          position: 'absolute',
          top: 0,
          bottom: 0,
          width: 2,
          bgcolor: 'primary.main',
          left: `calc(84px + (100% - 84px) * ${atMs / assembly.durationMs})`,
          pointerEvents: 'none',
        }}
      />
    </Box>
  );
}
