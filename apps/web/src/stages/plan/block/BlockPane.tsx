import { Box, IconButton, Tooltip, Typography } from '@mui/material';
import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward';
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import { kindName, LIMITS, moveBlocks, removeBlocks, type Block } from '@zest/core/lesson';
import { rewriteScript } from '@zest/core/script';
import { teacherText } from '@zest/core/words';
import { useEffect, useRef } from 'react';
import { edit } from '../../../app/lesson-slice.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useBlockNow, useChosenBlock } from '../../../app/use-lesson.ts';
import { FieldLook } from '../../../ui/field-look.ts';
import { TextLine } from '../../../ui/fields.tsx';
import { MenuButton } from '../../../ui/MenuButton.tsx';
import { KindMark } from '../../../ui/pictograms.tsx';
import { useChange } from '../../../ui/use-change.ts';
import { useAdding } from '../adding.ts';
import { useSplit } from '../use-split.ts';
import { usePlanView } from '../view.ts';
import './block.css';
import { EffortChoice } from './EffortChoice.tsx';
import { clausesOf } from './kind-clauses.tsx';
import { KindFigures } from './KindFigures.tsx';
import { Sentence } from './Sentence.tsx';
import { TokenRow } from './TokenRow.tsx';

/** What can be done with the block as a whole. */
function BlockTools({ block }: { block: Block }) {
  const dispatch = useAppDispatch();
  const split = useSplit();
  const { open } = usePlanView();
  const ids = new Set([block.id]);
  const { title } = block;
  const tools = [
    {
      name: teacherText('sheet.earlier-of', { title }),
      Icon: ArrowUpwardIcon,
      run: () => void dispatch(edit(teacherText('block.move-block'), moveBlocks(ids, -1))),
    },
    {
      name: teacherText('sheet.later-of', { title }),
      Icon: ArrowDownwardIcon,
      run: () => void dispatch(edit(teacherText('block.move-block'), moveBlocks(ids, 1))),
    },
    {
      name: teacherText('block.remove', { title }),
      Icon: DeleteOutlineIcon,
      run: () => void dispatch(edit(teacherText('block.remove-block'), removeBlocks(ids))),
    },
  ];
  return (
    <Box sx={{ display: 'flex', flex: 'none' }}>
      {tools.map(({ name, Icon, run }) => (
        <Tooltip key={name} title={name}>
          <IconButton size="small" aria-label={name} onClick={run}>
            <Icon fontSize="small" />
          </IconButton>
        </Tooltip>
      ))}
      <MenuButton
        size="small"
        label={teacherText('block.menu', { title })}
        entries={[
          { name: teacherText('drawer.calls'), run: () => open('calls') },
          { name: teacherText('block.split', { title }), run: () => void split(block.id) },
        ]}
      />
    </Box>
  );
}

/** The block's kind, name and effort. */
function BlockHead({ block }: { block: Block }) {
  const change = useChange(block);
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', columnGap: 1 }}>
        <KindMark kind={block.kind} size={22} />
        <Typography
          variant="body2"
          color="text.secondary"
          sx={{ flex: 1, minWidth: 72, lineHeight: 1.2 }}
        >
          {kindName(block.kind)}
        </Typography>
        <EffortChoice block={block} />
        <BlockTools block={block} />
      </Box>
      <Box className="block-title">
        <FieldLook value="bare">
          <TextLine
            label={teacherText('block.title')}
            value={block.title}
            most={LIMITS.title}
            onChange={(text) => change(teacherText('common.name'), (d) => void (d.title = text))}
          />
        </FieldLook>
      </Box>
    </>
  );
}

function OpenBlock({ block: shown }: { block: Block }) {
  const block = useBlockNow(shown);
  const change = useChange(block);
  const { isFresh } = useAdding();
  const place = useRef<HTMLDivElement>(null);
  const { id } = block;
  useEffect(() => {
    if (!isFresh(id)) return;
    const first = place.current?.querySelector<HTMLInputElement>(
      '.block-sentence input, .block-kind input, textarea',
    );
    first?.focus();
    first?.select();
  }, [id, isFresh]);
  return (
    <Box ref={place} className="block-pane">
      <BlockHead block={block} />
      <Sentence block={block} clauses={clausesOf(block)} />
      <FieldLook value="named">
        <div className="block-kind">
          <KindFigures block={block} />
        </div>
        <TextLine
          label={teacherText('block.what-you-say')}
          value={block.script}
          most={LIMITS.script}
          rows={2}
          onChange={(text) => change(teacherText('block.words'), (d) => rewriteScript(d, text))}
        />
      </FieldLook>
      <TokenRow block={block} />
    </Box>
  );
}

/** The chosen block: a sentence with its figures in it, and what else it has. */
export function BlockPane() {
  const { block } = useChosenBlock();
  return block ? (
    <OpenBlock key={block.id} block={block} />
  ) : (
    <Typography color="text.secondary">{teacherText('block.none')}</Typography>
  );
}
