import { isMaterial } from '@zest/contract';
import { Op } from 'sequelize';
import { z } from 'zod';
import { textToSay } from '@zest/core/words';
import { JobRow, TakeRow } from '../db/models.ts';
import type { Rendition } from '../db/takes.ts';
import { makeRenditions } from '../media/renditions.ts';
import type { JobQueue } from './queue.ts';
import { inFolder, type JobTools } from './tools.ts';

const renditionsInput = z.object({ takeId: z.string(), workingSha: z.string() });

const lackThem = (takes: Iterable<TakeRow>) =>
  [...takes].filter((take) => take.workingSha && take.renditions === null && !isMaterial(take));

/**
 * Puts takes that students are to see in line for their smaller versions, those that have none yet.
 */
export async function queueRenditions(queue: JobQueue, takes: Iterable<TakeRow>): Promise<void> {
  for (const { teamId, id, workingSha } of lackThem(takes))
    await queue.add({
      teamId,
      kind: 'renditions',
      subjectId: id,
      input: { takeId: id, workingSha },
    });
}

/**
 * The same for takes nobody has asked them for yet: each student's visit comes by here, and does
 * not try again what failed.
 */
export async function queueFirstRenditions(
  queue: JobQueue,
  takes: Iterable<TakeRow>,
): Promise<void> {
  const lacking = lackThem(takes);
  if (
    lacking.length > 0 &&
    (await JobRow.count({
      where: { kind: 'renditions', subjectId: lacking.map(({ id }) => id) },
    })) === 0
  )
    await queueRenditions(queue, lacking);
}

/** Makes the smaller versions of a take; the same content is made smaller once. */
export async function makeTakeRenditions(job: JobRow, tools: JobTools): Promise<void> {
  const { takeId, workingSha } = renditionsInput.parse(JSON.parse(job.input));
  const take = await TakeRow.findByPk(takeId);
  if (!take || take.workingSha !== workingSha) return; // Deleted or made anew meanwhile.
  const known = await TakeRow.findOne({ where: { workingSha, renditions: { [Op.not]: null } } });
  const renditions =
    known?.renditions ??
    (await inFolder(tools.folders, async (folder) => {
      const made = await makeRenditions(
        await tools.store.fileOf(workingSha),
        await tools.store.sizeOf(workingSha),
        folder,
        (part) => tools.onProgress(part, textToSay('job.smaller')),
        tools.signal,
      );
      const kept: Rendition[] = [];
      for (const { lines, file } of made) {
        const sha = await tools.store.take(file);
        kept.push({ lines, sha, bytes: await tools.store.sizeOf(sha) });
      }
      return JSON.stringify(kept);
    }));
  await take.update({ renditions });
}
