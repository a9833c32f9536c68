import { Box, Stack } from '@mui/material';
import {
  bodyRegions,
  LIMITS,
  partNames,
  performerFacings,
  viewerFacings,
  type Block,
} from '@zest/core/lesson';
import { metsOf } from '@zest/core/ledger';
import { teacherText } from '@zest/core/words';
import { useOpenLesson } from '../../../app/use-lesson.ts';
import { ChoiceField, same, TextLine, WholeField } from '../../../ui/fields.tsx';
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
            label={region}
            isOn={isOn}
            onToggle={() =>
              change(
                'Body regions',
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
          label="Company"
          value={company.kind}
          choices={companyNames}
          onChange={(kind) => change('Company', (d) => void (d.company.kind = kind))}
        />
        <WholeField
          label="Players"
          value={company.players}
          range={LIMITS.players}
          onChange={(n) => change('Players', (d) => void (d.company.players = n))}
        />
        {company.kind === 'adult' && (
          <TextLine
            label="Where the hands go"
            value={company.hands}
            most={LIMITS.line}
            onChange={(text) => change('Hands', (d) => void (d.company.hands = text))}
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
      label="Shown by"
      value={block.shownBy}
      most={LIMITS.title}
      helper={teacherText('token.shown-by-helper')}
      onChange={(text) => change('Shown by', (d) => void (d.shownBy = text))}
    />
  );
}

/** How much room the move takes around whoever does it. */
export function Room({ block }: BlockProps) {
  const change = useChange(block);
  const { units } = useOpenLesson().lesson.settings;
  return (
    <SpaceFields
      title="Room it takes"
      space={block.footprint}
      units={units}
      onToggle={(space) => change('Room', (d) => void (d.footprint = space), false)}
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
        label="Performer faces"
        value={facing.performer}
        choices={same(performerFacings)}
        onChange={(to) => change('Performer', (d) => void (d.facing.performer = to))}
      />
      <ChoiceField
        label="Student faces"
        value={facing.viewer}
        choices={same(viewerFacings)}
        onChange={(to) => change('Student', (d) => void (d.facing.viewer = to))}
      />
    </Line>
  );
}

export function Energy({ block }: BlockProps) {
  const change = useChange(block);
  return (
    <WholeField
      label="Energy, METs"
      value={Math.round(metsOf(block))}
      range={{ min: 1, max: 20 }}
      onChange={(mets) => change('Energy', (d) => void (d.mets = mets))}
    />
  );
}

export function Skill({ block }: BlockProps) {
  const change = useChange(block);
  return (
    <SkillField
      value={block.skill}
      onChange={(skill) => change('Skill', (d) => void (d.skill = skill))}
    />
  );
}

export function Part({ block }: BlockProps) {
  const change = useChange(block);
  return (
    <ChoiceField
      label="Part of the lesson"
      value={block.part}
      choices={partNames}
      onChange={(part) => change('Part', (d) => void (d.part = part))}
    />
  );
}
