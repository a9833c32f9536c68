import { accuracy } from './accuracy.ts';
import { assembling } from './assembling.ts';
import { follow } from './follow.ts';
import { checking } from './checking.ts';
import { exporting } from './exporting.ts';
import { hour } from './hour.ts';
import { load } from './load.ts';
import { importing } from './importing.ts';
import { playing } from './playing.ts';
import { scale } from './scale.ts';
import { scenes } from './scenes.ts';
import { scrubbing } from './scrubbing.ts';
import { schedules } from './schedules.ts';
import { speech } from './speech.ts';
import { typingBench } from './typing.ts';
import { watching } from './watching.ts';
import { workbench } from './workbench.ts';

/**
 * Runs the benchmarks named, or all: `./zest bench
 * [scenes|assemble|schedule|follow|typing|workbench|export|hour|import|play|scrub|watch|check|load|
 * accuracy|speech|scale]`, and of accuracy one set: `accuracy:jumping`.
 */
const all = {
  scenes,
  assemble: assembling,
  schedule: schedules,
  follow,
  typing: typingBench,
  workbench,
  export: exporting,
  hour,
  import: importing,
  play: playing,
  scrub: scrubbing,
  watch: watching,
  check: checking,
  load,
  accuracy,
  speech,
  scale,
};
const wanted = process.argv.slice(2).map((name) => name.split(/:(.*)/));
for (const [name, bench] of Object.entries(all)) {
  const asked = wanted.find(([one]) => one === name);
  if (wanted.length > 0 && !asked) continue;
  // Written as they are known: some take minutes.
  for await (const { what, value, limit, holds } of await bench(asked?.[1])) {
    process.stdout.write(`${holds ? 'holds' : 'MISSED'}  ${name}: ${what}: ${value} (${limit})\n`);
    if (!holds) process.exitCode = 1;
  }
}
