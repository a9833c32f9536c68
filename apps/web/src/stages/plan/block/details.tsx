import { Box, Stack } from '@mui/material';
import {
  bodyRegions,
  LIMITS,
  lessonParts,
  partName,
  regionName,
  valueName,
  performerFacings,
  viewerFacings,
  type Block,
} from '@zest/core/lesson';
import { metsOf } from '@zest/core/ledger';
import { teacherText } from '@zest/core/words';
import { useOpenLesson } from '../../../app/use-lesson.ts';
import { ChoiceField, named, TextLine, WholeField } from '../../../ui/fields.tsx';
import { SpaceFields } from '../../../ui/SpaceFields.tsx';
import { ToggleChip } from '../../../ui/ToggleChip.tsx';
import { useChange } from '../../../ui/use-change.ts';
import { Line } from './layout.tsx';
import { companyNames } from './names.ts';
import { SkillField } from './SkillField.tsx';
import { WayList } from './WayList.tsx';

export interface BlockProps {
  block: Block;
}

/** Which parts of the body a block works. */
export function Regions({ block }: BlockProps) {
  const change = useChange(block);
  return (
    <Box
      role="group"
      aria-label={teacherText('token.regions')}
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}
    >
      {bodyRegions.map((region) => {
        const isOn = block.regions.includes(region);
        return (
          <ToggleChip
            key={region}
            label={regionName(region)}
            isOn={isOn}
            onToggle={() =>
              change(
                teacherText('block.body-regions'),
                (d) =>
                  void (d.regions = isOn
                    ? d.regions.filter((r) => r !== region)
                    : [...d.regions, region]),
                false,
              )
            }
          />
        );
      })}
    </Box>
  );
}

/** With whom it is done, and how it goes with more or fewer. */
export function Players({ block }: BlockProps) {
  const change = useChange(block);
  const { company } = block;
  return (
    <Stack spacing={1}>
      <Line>
        <ChoiceField
          label={teacherText('block.company')}
          value={company.kind}
          choices={companyNames}
          onChange={(kind) =>
            change(teacherText('block.company'), (d) => void (d.company.kind = kind))
          }
        />
        <WholeField
          label={teacherText('common.players')}
          value={company.players}
          range={LIMITS.players}
          onChange={(n) =>
            change(teacherText('common.players'), (d) => void (d.company.players = n))
          }
        />
        {company.kind === 'adult' && (
          <TextLine
            label={teacherText('block.where-hands-go')}
            value={company.hands}
            most={LIMITS.line}
            onChange={(text) =>
              change(teacherText('block.hands'), (d) => void (d.company.hands = text))
            }
          />
        )}
      </Line>
      <WayList block={block} />
    </Stack>
  );
}

export function ShownBy({ block }: BlockProps) {
  const change = useChange(block);
  return (
    <TextLine
      label={teacherText('block.shown')}
      value={block.shownBy}
      most={LIMITS.title}
      helper={teacherText('token.shown-by-helper')}
      onChange={(text) => change(teacherText('block.shown'), (d) => void (d.shownBy = text))}
    />
  );
}

/** How much room the move takes around whoever does it. */
export function Room({ block }: BlockProps) {
  const change = useChange(block);
  const { units } = useOpenLesson().lesson.settings;
  return (
    <SpaceFields
      title={teacherText('block.room-takes')}
      space={block.footprint}
      units={units}
      onToggle={(space) =>
        change(teacherText('block.room'), (d) => void (d.footprint = space), false)
      }
      onChange={(side, cm) => change(side, (d) => void (d.footprint && (d.footprint[side] = cm)))}
    />
  );
}

export function Facing({ block }: BlockProps) {
  const change = useChange(block);
  const { facing } = block;
  return (
    <Line>
      <ChoiceField
        label={teacherText('block.performer-faces')}
        value={facing.performer}
        choices={named(performerFacings, valueName)}
        onChange={(to) =>
          change(teacherText('block.performer'), (d) => void (d.facing.performer = to))
        }
      />
      <ChoiceField
        label={teacherText('block.student-faces')}
        value={facing.viewer}
        choices={named(viewerFacings, valueName)}
        onChange={(to) => change(teacherText('common.student'), (d) => void (d.facing.viewer = to))}
      />
    </Line>
  );
}

export function Energy({ block }: BlockProps) {
  const change = useChange(block);
  return (
    <WholeField
      label={teacherText('block.energy-mets')}
      value={Math.round(metsOf(block))}
      range={{ min: 1, max: 20 }}
      onChange={(mets) => change(teacherText('block.energy'), (d) => void (d.mets = mets))}
    />
  );
}

export function Skill({ block }: BlockProps) {
  const change = useChange(block);
  return (
    <SkillField
      value={block.skill}
      onChange={(skill) => change(teacherText('common.skill'), (d) => void (d.skill = skill))}
    />
  );
}

export function Part({ block }: BlockProps) {
  const change = useChange(block);
  return (
    <ChoiceField
      label={teacherText('block.part-lesson')}
      value={block.part}
      choices={named(lessonParts, partName)}
      onChange={(part) => change(teacherText('block.lesson-part'), (d) => void (d.part = part))}
    />
  );
}
