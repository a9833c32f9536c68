import { isMaterial } from '@zest/contract';
import { Op } from 'sequelize';
import { z } from 'zod';
import { TakeRow, type JobRow } from '../db/models.ts';
import type { Rendition } from '../db/takes.ts';
import { makeRenditions } from '../media/renditions.ts';
import type { JobQueue } from './queue.ts';
import { inFolder, type JobTools } from './tools.ts';

const renditionsInput = z.object({ takeId: z.string(), workingSha: z.string() });

/** Puts takes that students are to see in line for their smaller versions, those that have none yet. */
export async function queueRenditions(queue: JobQueue, takes: readonly TakeRow[]): Promise<void> {
  for (const take of takes) {
    if (!take.workingSha || take.renditions !== null || isMaterial(take)) continue;
    await queue.add({ ownerId: take.ownerId, kind: 'renditions', subjectId: take.id, input: { takeId: take.id, workingSha: take.workingSha } });
  }
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
      const made = await makeRenditions(tools.store.pathOf(workingSha), await tools.store.sizeOf(workingSha), folder, (part) => tools.onProgress(part, 'Making smaller versions for slow lines'), tools.signal);
      const kept: Rendition[] = [];
      for (const { lines, file } of made) {
        const sha = await tools.store.take(file);
        kept.push({ lines, sha, bytes: await tools.store.sizeOf(sha) });
      }
      return JSON.stringify(kept);
    }));
  await take.update({ renditions });
}
