import { Box, Typography } from '@mui/material';
import { soundHint, type SoundHint } from '@zest/core/signal';
import { teacherText } from '@zest/core/words';
import { useEffect, useRef, useState } from 'react';

const FLOOR_DB = -60;
const WORDS_EVERY_MS = 600;
/** Often enough to be lively; more would take from the recording. */
const BAR_EVERY_MS = 100;
/** The bar falls by so much each time. */
const FALL_DB = 6;

const words: Record<SoundHint, string> = {
  silent: teacherText('filming.no-sound'),
  'too quiet': teacherText('filming.too-quiet'),
  good: teacherText('filming.sound-good'),
  'too loud': teacherText('filming.too-loud'),
  wind: teacherText('filming.wind-microphone'),
};
const colours: Record<SoundHint, string> = {
  silent: '#dccdb9',
  'too quiet': '#ffd08a',
  good: '#9be0ae',
  'too loud': '#ff9a8f',
  wind: '#ff9a8f',
};

/** Power of the bins between two frequencies, in dB. */
function bandDb(bins: Float32Array, binHz: number, fromHz: number, toHz: number): number {
  let sum = 0;
  for (let i = Math.ceil(fromHz / binHz); i <= Math.floor(toHz / binHz) && i < bins.length; i += 1)
    sum += 10 ** ((bins[i] ?? -120) / 10);
  return 10 * Math.log10(sum + 1e-12);
}

/** How loud the microphone is, as a bar and in a word. */
export function LevelMeter({ level }: { level: AnalyserNode }) {
  const bar = useRef<HTMLDivElement>(null);
  const [verdict, setVerdict] = useState<SoundHint>('silent');
  useEffect(() => {
    const samples = new Float32Array(level.fftSize);
    let shown = FLOOR_DB;
    let loudest = FLOOR_DB;
    let peak = 0;
    const bins = new Float32Array(level.frequencyBinCount);
    let saidAt = 0;
    const look = () => {
      const now = performance.now();
      level.getFloatTimeDomainData(samples);
      let sum = 0;
      for (const value of samples) {
        sum += value * value;
        peak = Math.max(peak, Math.abs(value));
      }
      const db = Math.max(FLOOR_DB, 10 * Math.log10(sum / samples.length + 1e-12));
      shown = Math.max(db, shown - FALL_DB);
      loudest = Math.max(loudest, db);
      if (bar.current) bar.current.style.transform = `scaleX(${(shown - FLOOR_DB) / -FLOOR_DB})`;
      if (now - saidAt < WORDS_EVERY_MS) return;
      saidAt = now;
      level.getFloatFrequencyData(bins);
      const binHz = level.context.sampleRate / level.fftSize;
      setVerdict(
        soundHint({
          loudestDb: loudest,
          peak,
          rumbleDb: bandDb(bins, binHz, 20, 150),
          voiceDb: bandDb(bins, binHz, 300, 3_000),
        }),
      );
      loudest = FLOOR_DB;
      peak = 0;
    };
    const looking = setInterval(look, BAR_EVERY_MS);
    return () => clearInterval(looking);
  }, [level]);
  return (
    <Box sx={{ minWidth: 220 }}>
      <Typography
        sx={{ fontSize: '1.5rem', fontWeight: 700, color: colours[verdict] }}
        data-testid="level"
      >
        {words[verdict]}
      </Typography>
      <Box sx={{ height: 16, borderRadius: 1, bgcolor: '#3a322a', overflow: 'hidden' }}>
        <Box
          ref={bar}
          sx={{
            height: '100%',
            bgcolor: colours[verdict],
            transformOrigin: 'left',
            transform: 'scaleX(0)',
          }}
        />
      </Box>
    </Box>
  );
}
