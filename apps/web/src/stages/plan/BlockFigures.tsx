import { Box, Stack } from '@mui/material';
import { LIMITS, partNames, type Block } from '@zest/core/lesson';
import { rewriteScript } from '@zest/core/script';
import { useBlockNow } from '../../app/use-lesson.ts';
import { ChoiceField, TextLine } from '../../ui/fields.tsx';
import { BlockDetails } from './BlockDetails.tsx';
import { KindFigures, Showing } from './KindFigures.tsx';
import { CautionList, CueList, KitList, LevelList } from './lists.tsx';
import { efforts } from './names.ts';
import { SkillField } from './SkillField.tsx';
import { PauseFigures } from './PauseFigures.tsx';
import { useChange } from '../../ui/use-change.ts';

/** Everything of one block that can be set. */
export function BlockFigures({ block: shown }: { block: Block }) {
  const block = useBlockNow(shown);
  const change = useChange(block);
  return (
    <Stack spacing={2} sx={{ px: 1.5, pb: 2, pt: 0.5 }}>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
        <TextLine
          label="Block"
          value={block.title}
          most={LIMITS.title}
          sx={{ flex: '1 1 220px' }}
          onChange={(text) => change('Name', (d) => void (d.title = text))}
        />
        <ChoiceField
          label="Effort"
          value={String(block.effort) as (typeof efforts)[number][0]}
          choices={efforts}
          sx={{ width: 150 }}
          onChange={(effort) => change('Effort', (d) => void (d.effort = Number(effort)))}
        />
        <SkillField
          value={block.skill}
          onChange={(skill) => change('Skill', (d) => void (d.skill = skill))}
        />
        <ChoiceField
          label="Part of the lesson"
          value={block.part}
          choices={partNames}
          sx={{ width: 150 }}
          onChange={(part) => change('Part', (d) => void (d.part = part))}
        />
      </Stack>
      <KindFigures block={block} />
      {'demo' in block && <Showing block={block} />}
      <TextLine
        label="What you say"
        value={block.script}
        most={LIMITS.script}
        rows={2}
        helper="In sentences. The captions are made from it."
        onChange={(text) => change('Words', (d) => rewriteScript(d, text))}
      />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, rowGap: 2 }}>
        <CueList
          items={block.cues}
          change={(label, recipe, merge) => change(label, (d) => recipe(d.cues), merge)}
        />
        <KitList
          items={block.kit}
          change={(label, recipe, merge) => change(label, (d) => recipe(d.kit), merge)}
        />
        <CautionList
          items={block.cautions}
          change={(label, recipe, merge) => change(label, (d) => recipe(d.cautions), merge)}
        />
        <LevelList
          items={block.levels}
          change={(label, recipe, merge) => change(label, (d) => recipe(d.levels), merge)}
        />
      </Box>
      <PauseFigures block={block} />
      <BlockDetails block={block} />
    </Stack>
  );
}
