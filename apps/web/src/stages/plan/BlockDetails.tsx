import { Button, Collapse, Stack, Typography } from '@mui/material';
import {
  bodyRegions,
  LIMITS,
  performerFacings,
  viewerFacings,
  type Block,
  type Footprint,
  type Lesson,
} from '@zest/core/lesson';
import { metsOf } from '@zest/core/ledger';
import { useState } from 'react';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { ChoiceField, LengthOfSpaceField, TextLine, WholeField, same } from '../../ui/fields.tsx';
import { ToggleChip } from '../../ui/ToggleChip.tsx';
import { companyNames } from './names.ts';
import { useChange } from '../../ui/use-change.ts';
import { FloorMarks } from './FloorMarks.tsx';
import { WayList } from './WayList.tsx';

/** Standing room for one. */
const STANDING: Footprint = { widthCm: 150, depthCm: 150, heightCm: 220 };

const sidesOfSpace = [
  ['widthCm', 'Width'],
  ['depthCm', 'Depth'],
  ['heightCm', 'Height'],
] as const;

interface SpaceProps {
  title: string;
  space: Footprint | null;
  units: Lesson['settings']['units'];
  onToggle: (space: Footprint | null) => void;
  onChange: (side: keyof Footprint, cm: number) => void;
}

/** Width, depth and height of a floor area and what is above it. */
export function SpaceFields({ title, space, units, onToggle, onChange }: SpaceProps) {
  return (
    <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2, alignItems: 'center' }}>
      <Typography sx={{ minWidth: 120 }}>{title}</Typography>
      {space === null ? (
        <Button aria-label={`Say how much: ${title}`} onClick={() => onToggle(STANDING)}>
          Say how much
        </Button>
      ) : (
        <>
          {sidesOfSpace.map(([side, label]) => (
            <LengthOfSpaceField
              key={side}
              label={label}
              value={space[side]}
              range={LIMITS.sideCm}
              units={units}
              onChange={(cm) => onChange(side, cm)}
            />
          ))}
          <Button onClick={() => onToggle(null)}>Leave open</Button>
        </>
      )}
    </Stack>
  );
}

function BodyRegions({ block }: { block: Block }) {
  const change = useChange(block);
  return (
    <Stack
      direction="row"
      useFlexGap
      sx={{ flexWrap: 'wrap', gap: 1, alignItems: 'center' }}
      role="group"
      aria-label="Body regions"
    >
      <Typography sx={{ minWidth: 120 }}>Works on</Typography>
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
    </Stack>
  );
}

/** Who, where, how hard and with which parts of the body: what the ledgers are reckoned from. */
export function BlockDetails({ block }: { block: Block }) {
  const [isOpen, setOpen] = useState(false);
  const change = useChange(block);
  const { settings } = useOpenLesson().lesson;
  const { company, facing, footprint } = block;
  return (
    <>
      <Button
        size="small"
        sx={{ alignSelf: 'start' }}
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
      >
        {isOpen ? 'Less' : 'Who, where and how hard'}
      </Button>
      <Collapse in={isOpen} unmountOnExit>
        <Stack spacing={2}>
          <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
            <ChoiceField
              label="Company"
              value={company.kind}
              choices={companyNames}
              sx={{ width: 250 }}
              onChange={(kind) => change('Company', (d) => void (d.company.kind = kind))}
            />
            <WholeField
              label="Players"
              value={company.players}
              range={LIMITS.players}
              sx={{ width: 110 }}
              onChange={(n) => change('Players', (d) => void (d.company.players = n))}
            />
            {company.kind === 'adult' && (
              <TextLine
                label="Where the hands go"
                value={company.hands}
                most={LIMITS.line}
                sx={{ flex: '1 1 260px' }}
                onChange={(text) => change('Hands', (d) => void (d.company.hands = text))}
              />
            )}
          </Stack>
          <WayList block={block} />
          <TextLine
            label="Shown by"
            value={block.shownBy}
            most={LIMITS.title}
            helper="First name or role, for the name tag; a code for a child"
            onChange={(text) => change('Shown by', (d) => void (d.shownBy = text))}
          />
          <SpaceFields
            title="Room it takes"
            space={footprint}
            units={settings.units}
            onToggle={(space) => change('Room', (d) => void (d.footprint = space), false)}
            onChange={(side, cm) =>
              change(side, (d) => void (d.footprint && (d.footprint[side] = cm)))
            }
          />
          <FloorMarks block={block} />
          <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
            <ChoiceField
              label="Performer faces"
              value={facing.performer}
              choices={same(performerFacings)}
              sx={{ width: 180 }}
              onChange={(to) => change('Performer', (d) => void (d.facing.performer = to))}
            />
            <ChoiceField
              label="Student faces"
              value={facing.viewer}
              choices={same(viewerFacings)}
              sx={{ width: 180 }}
              onChange={(to) => change('Student', (d) => void (d.facing.viewer = to))}
            />
            <WholeField
              label="Energy, METs"
              value={Math.round(metsOf(block))}
              range={{ min: 1, max: 20 }}
              helper={block.mets === null ? 'usual for the effort' : 'your own figure'}
              onChange={(mets) => change('Energy', (d) => void (d.mets = mets))}
            />
            {block.mets !== null && (
              <Button onClick={() => change('Energy', (d) => void (d.mets = null), false)}>
                Usual for the effort
              </Button>
            )}
          </Stack>
          <BodyRegions block={block} />
        </Stack>
      </Collapse>
    </>
  );
}
