import { Autocomplete, Box, TextField } from '@mui/material';
import type { Block } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useEffect, useRef, useState } from 'react';
import { useLessonPart } from '../../../app/use-lesson.ts';
import { FieldLook } from '../../../ui/field-look.ts';
import { ThingMark } from '../../../ui/pictograms.tsx';
import { RemoveButton } from '../../../ui/Rows.tsx';
import { useChange } from '../../../ui/use-change.ts';
import { tokensFor, type Token } from './tokens.tsx';

/** What more a block can have, found by typing. */
function AddToken({ tokens, onAdd }: { tokens: readonly Token[]; onAdd: (token: Token) => void }) {
  const [typed, setTyped] = useState('');
  return (
    <Autocomplete
      options={tokens}
      getOptionLabel={({ name }) => name}
      getOptionKey={({ id }) => id}
      value={null}
      inputValue={typed}
      onInputChange={(_event, text, reason) => setTyped(reason === 'input' ? text : '')}
      onChange={(_event, token) => token && onAdd(token)}
      openOnFocus
      autoHighlight
      blurOnSelect
      size="small"
      sx={{ width: 190 }}
      slotProps={{ popper: { sx: { minWidth: 240 }, placement: 'bottom-start' } }}
      renderInput={(params) => (
        <TextField
          {...params}
          placeholder={teacherText('token.add-like')}
          slotProps={{
            ...params.slotProps,
            htmlInput: { ...params.slotProps.htmlInput, 'aria-label': teacherText('token.add') },
          }}
        />
      )}
    />
  );
}

/** The fields of one token; its first empty text is gone to where it was added just now. */
function TokenEditor({
  block,
  token: { id, name, end, Editor },
  goTo,
  onEnd,
}: {
  block: Block;
  token: Token;
  goTo: boolean;
  onEnd: () => void;
}) {
  const change = useChange(block);
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!goTo) return;
    const fields = [...(place.current?.querySelectorAll<HTMLElement>('input, textarea') ?? [])];
    const empty = fields.filter((field) => (field as HTMLInputElement).value === '');
    (empty.at(-1) ?? fields[0])?.focus();
  }, [goTo, id]);
  return (
    <Box
      ref={place}
      role="group"
      aria-label={teacherText('token.fields', { name })}
      sx={{
        display: 'flex',
        gap: 1,
        alignItems: 'start',
        mt: 1,
        p: 1,
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
      }}
    >
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <FieldLook value="named">
          <Editor block={block} />
        </FieldLook>
      </Box>
      {end && (
        <RemoveButton
          name={name}
          onRemove={() => {
            change(name, end, false);
            onEnd();
          }}
        />
      )}
    </Box>
  );
}

/** What the block has besides its figures, and what more it can have. Nothing empty is shown. */
export function TokenRow({ block }: { block: Block }) {
  const change = useChange(block);
  const lesson = useLessonPart((now) => now);
  const [open, setOpen] = useState<{ id: Token['id']; isNew: boolean } | null>(null);
  const tokens = tokensFor(block.kind);
  const has = tokens.map((token) => ({ token, texts: token.has(block, lesson) }));
  const opened = tokens.find(({ id }) => id === open?.id);
  const add = (token: Token) => {
    if (token.begin) change(token.name, token.begin, false);
    setOpen({ id: token.id, isNew: true });
  };
  return (
    <>
      <Box className="block-tokens">
        {has.flatMap(({ token, texts }) =>
          texts.map((text, i) => (
            <button
              type="button"
              key={`${token.id} ${i}`}
              className="block-token"
              title={token.name}
              aria-label={`${token.name}: ${text}`}
              aria-expanded={open?.id === token.id}
              onClick={() => setOpen(open?.id === token.id ? null : { id: token.id, isNew: false })}
            >
              <ThingMark of={token.mark} size={15} />
              <span className="block-token-text">{text}</span>
            </button>
          )),
        )}
        <AddToken tokens={tokens} onAdd={add} />
      </Box>
      {open && opened && (
        <TokenEditor
          key={opened.id}
          block={block}
          token={opened}
          goTo={open.isNew}
          onEnd={() => setOpen(null)}
        />
      )}
    </>
  );
}
